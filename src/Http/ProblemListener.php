<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Throwable;
use Wattage\App\Database\Outage;
use Wattage\App\Media\Refused;
use Wattage\App\Project\OthersEdit;
use Wattage\App\Project\OutdatedRevision;
use Wattage\App\Project\UnknownBase;
use Wattage\App\Request\ProblemResponse;
use Wattage\App\Storage\MissingFile;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Problem;

/** Turns what went wrong into a problem document, in one place. Runs after the firewall has seen the error. */
#[AsEventListener(KernelEvents::EXCEPTION, priority: 0)]
final readonly class ProblemListener
{
    public function __construct(private LoggerInterface $logger)
    {
    }

    public function __invoke(ExceptionEvent $event): void
    {
        $error = $event->getThrowable();
        if ($error instanceof AuthenticationException) {
            return; // the firewall answers
        }
        $event->setResponse(match (true) {
            $error instanceof Problem => ProblemResponse::of(422, $error->getMessage(), $error->field()),
            $error instanceof OutdatedRevision => ProblemResponse::of(409, $error->getMessage(), $error->field, 'outdated', ['revision' => $error->newest]),
            $error instanceof OthersEdit => ProblemResponse::of(409, $error->getMessage(), code: 'others', more: ['revision' => $error->revision]),
            $error instanceof UnknownBase => ProblemResponse::of(409, $error->getMessage(), code: 'unknown-base'),
            $error instanceof Refused => ProblemResponse::of(422, $error->getMessage()),
            $error instanceof NoRoom => ProblemResponse::of(507, $error->getMessage()),
            $error instanceof MissingFile => ProblemResponse::of(404, 'A file that belongs here is gone from the store. Tell whoever runs this server.'),
            Outage::is($error) => ProblemResponse::away(),
            $error instanceof AccessDeniedException => ProblemResponse::of(403, 'Your role in this project does not allow that. Ask its owner.'),
            $error instanceof HttpExceptionInterface => ProblemResponse::of($error->getStatusCode(), '' === $error->getMessage() || $error->getStatusCode() >= 500 ? 'This could not be done.' : $this->plain($error)),
            default => $this->unexpected($error, (string) $event->getRequest()->headers->get('X-Request-Id')),
        });
    }

    /** The framework's own texts name classes and routes; people get a plain sentence instead. */
    private function plain(HttpExceptionInterface $error): string
    {
        return null !== $error->getPrevious() || str_starts_with($error->getMessage(), 'No route') ? 'There is nothing here, or not for this kind of request.' : $error->getMessage();
    }

    private function unexpected(Throwable $error, string $request): \Symfony\Component\HttpFoundation\JsonResponse
    {
        $this->logger->error('Unexpected error: {message}', ['message' => $error->getMessage(), 'exception' => $error]);

        $name = RequestName::of($request);

        return ProblemResponse::of(500, 'Something went wrong on our side. Your work up to the last edit is saved; try again.', more: null === $name ? [] : ['request' => $name]);
    }
}
