<?php

declare(strict_types=1);

namespace Wattage\App\People;

use Doctrine\DBAL\Connection;
use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;
use Symfony\Component\Mime\Email;
use Symfony\Component\Mime\MessageConverter;
use Symfony\Component\Uid\Uuid;

/** A simulated post box in place of a mail server, for the demo and the tests: what is sent can be read in the app. */
final class PostBox extends AbstractTransport
{
    public const DSN = 'postbox://here';

    public function __construct(private readonly Connection $database)
    {
        parent::__construct();
    }

    /** @return list<array{to: string, subject: string, body: string, at: string}> the newest, newest first */
    public function letters(): array
    {
        /** @var list<array{to: string, subject: string, body: string, at: string}> $letters */
        $letters = $this->database->fetchAllAssociative('SELECT recipient AS "to", subject, body, to_char(sent_at, \'YYYY-MM-DD"T"HH24:MI:SS"Z"\') AS at FROM posted_mail ORDER BY sent_at DESC, id DESC LIMIT 50');

        return $letters;
    }

    public function __toString(): string
    {
        return self::DSN;
    }

    protected function doSend(SentMessage $message): void
    {
        $original = $message->getOriginalMessage();
        $email = $original instanceof \Symfony\Component\Mime\Message ? MessageConverter::toEmail($original) : new Email();
        $this->database->executeStatement('INSERT INTO posted_mail (id, sent_at, recipient, subject, body) VALUES (?, now(), ?, ?, ?)', [
            (string) Uuid::v7(), mb_substr($email->getTo()[0]->getAddress(), 0, 180), mb_substr((string) $email->getSubject(), 0, 400), (string) $email->getTextBody(),
        ]);
    }
}
