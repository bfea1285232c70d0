<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Wattage\App\Storage\Store;

/**
 * A stored file as an answer. Where the web server can reach the store it sends the file itself, ranges too, and a store with addresses of its own
 * is asked by the browser: so a slow reader holds a socket and not a PHP process. Whether somebody may have it is decided before.
 */
final readonly class StoredFile
{
    private const SECONDS_KEPT = 86_400;
    private const SECONDS_FOR_EVER = 31_536_000;

    /** @param string $place address, known to the web server only, under which it finds the store; empty where it cannot */
    public function __construct(private Store $store, private string $place)
    {
    }

    /** @param ?string $name to save it under; null where it is only shown */
    public function answer(string $path, string $type, Request $request, ?string $name = null): Response
    {
        $disposition = null === $name ? null : HeaderUtils::makeDisposition('attachment', $name, (string) preg_replace('/[^A-Za-z0-9 ._-]/', '_', $name));
        $address = $this->store->address($path, array_filter(['type' => $type, 'disposition' => $disposition], is_string(...)));
        $response = null === $address ? $this->sent($path, $type, $request) : new Response('', 302, ['Location' => $address]);
        null === $disposition || $response->headers->set('Content-Disposition', $disposition);
        // A signed address ends before what stands there does.
        null === $address ? $response->setPrivate()->setMaxAge(self::SECONDS_KEPT) : $response->setPrivate();
        $response->headers->set('Symfony-Session-NoAutoCacheControl', '1');

        return $response;
    }

    /** One that never changes, and is not large: from here, wherever it is stored. */
    public function part(string $path, string $type, Request $request): Response
    {
        return self::kept($this->sent($path, $type, $request));
    }

    /** The same for what is worked out of one: the browser that has it need never ask again. */
    public static function kept(Response $response): Response
    {
        $response->setPrivate()->setMaxAge(self::SECONDS_FOR_EVER)->setImmutable();
        $response->headers->set('Symfony-Session-NoAutoCacheControl', '1');

        return $response;
    }

    private function sent(string $path, string $type, Request $request): Response
    {
        return '' === $this->place
            ? RangeResponse::of($this->store->open($path), $type, $request)
            : new Response('', headers: ['Content-Type' => $type, 'X-Accel-Redirect' => "{$this->place}/{$path}"]);
    }
}
