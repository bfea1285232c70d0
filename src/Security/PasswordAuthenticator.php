<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\CustomUserMessageAuthenticationException;
use Symfony\Component\Security\Core\Exception\TooManyLoginAttemptsAuthenticationException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Http\Authenticator\AbstractAuthenticator;
use Symfony\Component\Security\Http\Authenticator\Passport\Badge\UserBadge;
use Symfony\Component\Security\Http\Authenticator\Passport\Credentials\PasswordCredentials;
use Symfony\Component\Security\Http\Authenticator\Passport\Passport;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;
use Wattage\App\Entity\User;
use Wattage\App\Request\Body;
use Wattage\App\Request\Once;
use Wattage\App\Request\ProblemResponse;

/** Sign-in with e-mail address and password, as JSON. */
final class PasswordAuthenticator extends AbstractAuthenticator implements AuthenticationEntryPointInterface
{
    public function __construct(private readonly SignInAttempts $attempts, private readonly Once $once, private readonly EntityManagerInterface $entities, private readonly UserPasswordHasherInterface $hasher)
    {
    }

    public function supports(Request $request): bool
    {
        return 'POST' === $request->getMethod() && '/api/session' === $request->getPathInfo();
    }

    public function authenticate(Request $request): Passport
    {
        $body = Body::of($request);
        $email = mb_strtolower(trim($body->string('email')));
        $password = $body->string('password');
        if ('' === $email || '' === $password || mb_strlen($email) > 180 || \strlen($password) > 1000) {
            throw new CustomUserMessageAuthenticationException('Type your e-mail address and your password.');
        }
        $this->attempts->count($email, (string) $request->getClientIp());

        return new Passport(new UserBadge($email, fn (): User => $this->known($email, $password)), new PasswordCredentials($password));
    }

    /** An address without an account takes as long as one with it, so that nobody learns who has one. */
    private function known(string $email, string $password): User
    {
        $user = $this->entities->getRepository(User::class)->findOneBy(['email' => $email]);
        if (null === $user) {
            $this->hasher->hashPassword(new User($email, ''), $password);
            throw new UserNotFoundException();
        }

        return $user;
    }

    /** Null: the controller goes on and tells who has signed in. */
    public function onAuthenticationSuccess(Request $request, TokenInterface $token, string $firewallName): ?Response
    {
        $this->attempts->forget($token->getUserIdentifier(), (string) $request->getClientIp());
        if (($user = $token->getUser()) instanceof User) {
            $this->once->forget($user);
        }

        return null;
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        if ($exception instanceof TooManyLoginAttemptsAuthenticationException) {
            return ProblemResponse::of(429, 'Too many attempts. Wait a minute, then try again.');
        }
        $message = $exception instanceof CustomUserMessageAuthenticationException ? $exception->getMessage() : 'E-mail address and password do not match. Check both and try again.';

        return ProblemResponse::of(401, $message);
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        return ProblemResponse::of(401, 'Sign in first.');
    }
}
