<?php

declare(strict_types=1);

namespace Wattage\App\People;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use Symfony\Component\Mailer\Exception\UnsupportedSchemeException;
use Symfony\Component\Mailer\Transport\Dsn;
use Symfony\Component\Mailer\Transport\TransportFactoryInterface;
use Symfony\Component\Mailer\Transport\TransportInterface;

/** Makes the post box where MAILER_DSN names it. */
#[AutoconfigureTag('mailer.transport_factory')]
final readonly class PostBoxFactory implements TransportFactoryInterface
{
    public function __construct(private PostBox $box)
    {
    }

    public function create(Dsn $dsn): TransportInterface
    {
        return $this->supports($dsn) ? $this->box : throw new UnsupportedSchemeException($dsn, 'postbox', ['postbox']);
    }

    public function supports(Dsn $dsn): bool
    {
        return 'postbox' === $dsn->getScheme();
    }
}
