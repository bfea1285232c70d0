<?php

declare(strict_types=1);

namespace Wattage\App\Request;

use Symfony\Component\HttpFoundation\JsonResponse;

/** An error as a problem document, RFC 9457. */
final class ProblemResponse
{
    private const SECONDS_AWAY = 2;

    /** What people's work depends on is away for a moment: their screens try again by themselves. */
    public static function away(): JsonResponse
    {
        $response = self::of(503, 'The server is catching its breath. What you do is kept here, and sent as soon as it is back.');
        $response->headers->set('Retry-After', (string) self::SECONDS_AWAY);

        return $response;
    }

    /** @param array<string, mixed> $more further members of the document */
    public static function of(int $status, string $detail, string $field = '', string $code = '', array $more = []): JsonResponse
    {
        $title = JsonResponse::$statusTexts[$status] ?? 'Error';
        $document = ['type' => 'about:blank', 'title' => $title, 'status' => $status, 'detail' => $detail, ...$more];
        if ('' !== $field) {
            $document['field'] = $field;
        }
        if ('' !== $code) {
            $document['code'] = $code;
        }

        return new JsonResponse($document, $status, ['Content-Type' => 'application/problem+json']);
    }
}
