<?php

declare(strict_types=1);

namespace Wattage\App\Request;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;

/** The JSON body of a request. */
final class Body
{
    private const MAX_BYTES = 2_000_000;

    /** Of an edit, which may bring a whole mix. */
    public const MAX_EDIT_BYTES = 8_000_000;

    /** Objects and lists; each takes half a kilobyte once it is read. */
    private const MOST_PARTS = 300_000;

    /**
     * @return array<array-key, mixed>
     *
     * @throws HttpException when it is too large, or neither an object nor a list
     */
    public static function json(Request $request, int $most = self::MAX_BYTES): array
    {
        $content = $request->getContent();
        if (\strlen($content) > $most || substr_count($content, '{') + substr_count($content, '[') > self::MOST_PARTS) {
            throw new HttpException(413, \sprintf('This request is too large: %d MB at most, and %s objects and lists in it. Send it in parts.', intdiv($most, 1_000_000), number_format(self::MOST_PARTS)));
        }
        $json = json_decode($content, true, 16);

        return \is_array($json) ? $json : throw new HttpException(400, 'The request is not a JSON object.');
    }

    /** @throws HttpException|Problem */
    public static function of(Request $request): Fields
    {
        return Fields::of(self::json($request));
    }
}
