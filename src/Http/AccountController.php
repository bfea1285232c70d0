<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Wattage\App\People\Passwords;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;
use Wattage\App\Security\PasswordAuthenticator;
use Wattage\App\Security\Record;
use Wattage\App\Security\SignedIn;
use Wattage\App\Security\SignInAttempts;
use Wattage\Core\Timeline\Name;

/** One's own account: name, password, being signed in elsewhere. */
final readonly class AccountController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private Security $security, private Passwords $passwords, private SignInAttempts $attempts, private Record $record, private Later $later)
    {
    }

    #[Route('/api/account', methods: 'PATCH')]
    public function rename(Request $request): Response
    {
        $this->access->user()->name = Name::check(Body::of($request)->string('name'));
        $this->entities->flush();

        return new Response(status: 204);
    }

    /** All other sessions end; this one goes on. */
    #[Route('/api/account/password', methods: 'PUT')]
    public function changePassword(Request $request, SignedIn $signedIn): Response
    {
        $user = $this->access->user();
        $body = Body::of($request);
        $this->attempts->count($user->email, (string) $request->getClientIp());
        $this->passwords->change($user, $body->string('current'), $body->string('password'));
        $this->record->ofAccount($user, 'changed the password');
        $this->security->login($user, PasswordAuthenticator::class);
        $signedIn->note($user, $request);

        return new Response(status: 204);
    }

    #[Route('/api/account/sign-out-everywhere', methods: 'POST')]
    public function signOutEverywhere(): Response
    {
        $user = $this->access->user();
        ++$user->generation;
        $this->entities->flush();
        $this->record->ofAccount($user, 'signed out everywhere');
        $this->security->logout(false);

        return new Response(status: 204);
    }

    /** Answers alike whether there is such an account or not. */
    #[Route('/api/forgotten-password', methods: 'POST')]
    public function forgotten(Request $request): Response
    {
        $email = Body::of($request)->string('email');
        $this->attempts->count("forgotten {$email}", (string) $request->getClientIp());
        $this->later->run(fn () => $this->passwords->forgotten($email));

        return new Response(status: 202);
    }

    #[Route('/api/new-password/{token}', requirements: ['token' => '[\w-]{20,100}'], methods: 'POST')]
    public function reset(string $token, Request $request): Response
    {
        $user = $this->passwords->reset($token, Body::of($request)->string('password'));
        $this->record->ofAccount($user, 'set a new password by a letter');

        return new Response(status: 204);
    }
}
