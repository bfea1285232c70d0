<?php

declare(strict_types=1);

namespace Wattage\App\People;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Email;
use Wattage\App\Entity\Invitation;
use Wattage\App\Entity\User;

/** The e-mails that go out. Plain text; links begin with the configured address, never with what a request claims. */
final readonly class Letters
{
    public function __construct(private MailerInterface $mailer, private string $address, private string $from)
    {
    }

    public function invitation(Invitation $invitation, SecretLink $link): void
    {
        $this->send($invitation->email, "{$invitation->invitedBy->name} invites you to “{$invitation->project->name}”", <<<TEXT
            {$invitation->invitedBy->name} would like you to work on “{$invitation->project->name}” in Wattage, as {$invitation->role->value}.

            Open this link to join. It works once, until {$invitation->expiresAt->format('j F Y')}:

            {$this->address}/join/{$link->token}

            If you do not know what this is about, there is nothing you need to do.
            TEXT);
    }

    public function passwordReset(User $user, SecretLink $link): void
    {
        $this->send($user->email, 'A new password for Wattage', <<<TEXT
            Somebody, most likely you, asked for a new password for this address.

            Set it here. The link works once, within an hour:

            {$this->address}/new-password/{$link->token}

            If it was not you, there is nothing you need to do; your password stays as it is.
            TEXT);
    }

    private function send(string $to, string $subject, string $text): void
    {
        $this->mailer->send((new Email())->from($this->from)->to($to)->subject($subject)->text($text));
    }
}
