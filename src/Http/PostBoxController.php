<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Wattage\App\People\PostBox;

/** The simulated post box. It stands in for the mail programs of everybody, so it knows no login; where real mail goes out it does not exist. */
final readonly class PostBoxController
{
    public function __construct(private PostBox $box, private string $mailer)
    {
    }

    #[Route('/api/post-box', methods: 'GET')]
    public function list(): JsonResponse
    {
        PostBox::DSN === $this->mailer || throw new NotFoundHttpException('There is no post box here: e-mail goes out for real.');

        return new JsonResponse(['letters' => $this->box->letters()], headers: ['Cache-Control' => 'no-store']);
    }
}
