<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use Wattage\App\Entity\User;
use Wattage\App\Security\CsrfGuard;
use Wattage\App\Security\SignedIn;

/** Who is signed in, and the token that changing requests must carry. */
final readonly class SessionController
{
    public function __construct(private Security $security, private CsrfTokenManagerInterface $tokens)
    {
    }

    #[Route('/api/session', methods: 'POST')]
    public function begin(Request $request, SignedIn $signedIn): JsonResponse
    {
        $user = $this->security->getUser();
        $user instanceof User && $signedIn->note($user, $request);

        return $this->show();
    }

    #[Route('/api/session', methods: 'GET')]
    public function show(): JsonResponse
    {
        $user = $this->security->getUser();

        return new JsonResponse([
            'user' => $user instanceof User ? ['id' => (string) $user->id, 'email' => $user->email, 'name' => $user->name] : null,
            'csrf' => $this->tokens->getToken(CsrfGuard::TOKEN)->getValue(),
        ], headers: ['Cache-Control' => 'no-store']);
    }

    #[Route('/api/session', methods: 'DELETE')]
    public function end(): JsonResponse
    {
        if (null !== $this->security->getUser()) {
            $this->security->logout(false);
        }

        return $this->show();
    }
}
