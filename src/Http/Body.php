<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;

/** The JSON body of a request. */
final class Body
{
    private const MAX_BYTES = 2_000_000;

    /**
     * @return array<array-key, mixed>
     *
     * @throws HttpException when it is too large, or neither an object nor a list
     */
    public static function json(Request $request): array
    {
        $content = $request->getContent();
        if (\strlen($content) > self::MAX_BYTES) {
            throw new HttpException(413, 'This request is too large.');
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
