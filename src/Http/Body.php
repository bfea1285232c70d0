<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use JsonException;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Wattage\Core\Interchange\Fields;

/** The JSON body of a request. */
final class Body
{
    private const MAX_BYTES = 2_000_000;

    /** @throws HttpException|\Wattage\Core\Problem */
    public static function of(Request $request): Fields
    {
        $content = $request->getContent();
        if (\strlen($content) > self::MAX_BYTES) {
            throw new HttpException(413, 'This request is too large.');
        }
        try {
            return Fields::of(json_decode($content, true, 16, \JSON_THROW_ON_ERROR));
        } catch (JsonException) {
            throw new HttpException(400, 'The request is not JSON.');
        }
    }
}
