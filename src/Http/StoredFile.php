<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Wattage\App\Media\MediaStore;

/**
 * A stored file as an answer. Where the web server can reach the store it sends the file itself, ranges too: so a slow reader holds a socket and
 * not a PHP process. Whether somebody may have it is decided before.
 */
final readonly class StoredFile
{
    /** @param string $place address, known to the web server only, under which it finds the store; empty where it cannot */
    public function __construct(private MediaStore $store, private string $place)
    {
    }

    public function answer(string $path, string $type, Request $request): Response
    {
        $response = '' === $this->place
            ? RangeResponse::of($this->store->open($path), $type, $request)
            : new Response('', headers: ['Content-Type' => $type, 'X-Accel-Redirect' => "{$this->place}/{$path}"]);
        $response->setPrivate()->setMaxAge(86_400);
        $response->headers->set('Symfony-Session-NoAutoCacheControl', '1');

        return $response;
    }
}
