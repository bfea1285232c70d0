<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use Wattage\App\Request\ProblemResponse;

/** Every request that changes something must carry the token that GET /api/session hands out. Runs before sign-in. */
#[AsEventListener(KernelEvents::REQUEST, priority: 12)]
final readonly class CsrfGuard
{
    public const TOKEN = 'api';
    public const HEADER = 'X-Csrf-Token';

    public function __construct(private CsrfTokenManagerInterface $tokens)
    {
    }

    public function __invoke(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if ($request->isMethodSafe() || !str_starts_with($request->getPathInfo(), '/api')) {
            return;
        }
        if (!$this->tokens->isTokenValid(new CsrfToken(self::TOKEN, $request->headers->get(self::HEADER)))) {
            $event->setResponse(ProblemResponse::of(403, 'This page has been open too long. Reload it and try again.', code: 'csrf'));
        }
    }
}
