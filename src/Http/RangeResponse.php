<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** A stored file, whole or a part of it: single byte ranges of RFC 9110, section 14. */
final class RangeResponse
{
    /** @param resource $stream seekable */
    public static function of(mixed $stream, string $type, Request $request): Response
    {
        $size = (int) (fstat($stream)['size'] ?? 0);
        [$from, $to] = [0, $size - 1];
        $partial = 1 === preg_match('/^bytes=(\d{0,15})-(\d{0,15})$/', (string) $request->headers->get('Range'), $asked) && '-' !== "{$asked[1]}-{$asked[2]}";
        if ($partial) {
            $from = '' === $asked[1] ? max(0, $size - (int) $asked[2]) : (int) $asked[1];
            $to = '' === $asked[1] || '' === $asked[2] ? $to : min($to, (int) $asked[2]);
        }
        if ($from > $to) {
            return new Response('', 416, ['Content-Range' => "bytes */{$size}"]);
        }
        $response = new StreamedResponse(static function () use ($stream, $from, $to): void {
            $out = fopen('php://output', 'w');
            \is_resource($out) && stream_copy_to_stream($stream, $out, $to - $from + 1, $from);
        }, $partial ? 206 : 200, ['Content-Type' => $type, 'Content-Length' => (string) ($to - $from + 1), 'Accept-Ranges' => 'bytes']);
        $partial && $response->headers->set('Content-Range', "bytes {$from}-{$to}/{$size}");

        return $response;
    }
}
