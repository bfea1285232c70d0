<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Wattage\App\Entity\User;

#[AsCommand('wattage:user', 'Creates an account, or gives an existing one a new password. The password is read from standard input.')]
final class CreateUserCommand extends Command
{
    public function __construct(private readonly EntityManagerInterface $entities, private readonly UserPasswordHasherInterface $hasher)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('email', InputArgument::REQUIRED)->addArgument('name', InputArgument::REQUIRED);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        /** @var array{email: string, name: string} $arguments */
        $arguments = $input->getArguments();
        $email = mb_strtolower($arguments['email']);
        $password = trim((string) fgets(\STDIN));
        if (false === filter_var($email, \FILTER_VALIDATE_EMAIL) || \strlen($password) < 8) {
            $output->writeln('Give a valid e-mail address, and a password of at least 8 characters on standard input.');

            return self::FAILURE;
        }
        $user = $this->entities->getRepository(User::class)->findOneBy(['email' => $email]) ?? new User($email, $arguments['name']);
        $user->setPassword($this->hasher->hashPassword($user, $password));
        $this->entities->persist($user);
        $this->entities->flush();
        $output->writeln("{$email} can sign in.");

        return self::SUCCESS;
    }
}
