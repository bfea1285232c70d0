<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\Security\Core\Exception\TooManyLoginAttemptsAuthenticationException;

/** Slows down guessing: a few attempts a minute for one address and one account. */
final readonly class SignInAttempts
{
    private const PER_MINUTE = 8;

    public function __construct(private CacheItemPoolInterface $cache)
    {
    }

    /** @throws TooManyLoginAttemptsAuthenticationException */
    public function count(string $email, string $address): void
    {
        $item = $this->cache->getItem($this->key($email, $address));
        $count = $item->isHit() && \is_int($item->get()) ? $item->get() : 0;
        if ($count >= self::PER_MINUTE) {
            throw new TooManyLoginAttemptsAuthenticationException(1);
        }
        $this->cache->save($item->set($count + 1)->expiresAfter(60));
    }

    public function forget(string $email, string $address): void
    {
        $this->cache->deleteItem($this->key($email, $address));
    }

    private function key(string $email, string $address): string
    {
        return 'sign-in.'.hash('sha256', "{$email}\n{$address}");
    }
}
