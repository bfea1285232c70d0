<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Wattage\App\Storage\StoredBytes;

/** A stored file, whole or a part of it: single byte ranges of RFC 9110, section 14. */
final class RangeResponse
{
    private const AT_ONCE = 1 << 20;

    public static function of(StoredBytes $file, string $type, Request $request): Response
    {
        $size = $file->size();
        [$from, $to] = [0, $size - 1];
        $partial = 1 === preg_match('/^bytes=(\d{0,15})-(\d{0,15})$/', (string) $request->headers->get('Range'), $asked) && '-' !== "{$asked[1]}-{$asked[2]}";
        if ($partial) {
            $from = '' === $asked[1] ? max(0, $size - (int) $asked[2]) : (int) $asked[1];
            $to = '' === $asked[1] || '' === $asked[2] ? $to : min($to, (int) $asked[2]);
        }
        if ($from > $to) {
            return new Response('', 416, ['Content-Range' => "bytes */{$size}"]);
        }
        $response = new StreamedResponse(static function () use ($file, $from, $to): void {
            for ($at = $from; $at <= $to; $at += self::AT_ONCE) {
                echo $file->read($at, min(self::AT_ONCE, $to - $at + 1));
            }
        }, $partial ? 206 : 200, ['Content-Type' => $type, 'Content-Length' => (string) ($to - $from + 1), 'Accept-Ranges' => 'bytes']);
        $partial && $response->headers->set('Content-Range', "bytes {$from}-{$to}/{$size}");

        return $response;
    }
}
