<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Monolog\LogRecord;
use Monolog\Processor\ProcessorInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\RequestStack;
use Wattage\App\Entity\User;

/** Puts the name that the web server gave a request, its address and whose it is into every line of the log. */
final readonly class RequestName implements ProcessorInterface
{
    public function __construct(private RequestStack $requests, private Security $security)
    {
    }

    public function __invoke(LogRecord $record): LogRecord
    {
        $request = $this->requests->getMainRequest();
        if (null !== $request) {
            $user = $this->security->getUser();
            $record->extra['request'] = self::of((string) $request->headers->get('X-Request-Id'));
            $record->extra['path'] = $request->getPathInfo();
            $record->extra['account'] = $user instanceof User ? (string) $user->id : null;
        }

        return $record;
    }

    /** Only what a web server of ours would make. */
    public static function of(string $header): ?string
    {
        return 1 === preg_match('/^[0-9a-f]{32}$/D', $header) ? $header : null;
    }
}
