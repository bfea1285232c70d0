<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Wattage\App\Handover\OwnTargets;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;

/** The targets that an account keeps. */
#[Route('/api/targets')]
final readonly class TargetController
{
    public function __construct(private ProjectAccess $access, private OwnTargets $targets)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(): JsonResponse
    {
        return new JsonResponse(['targets' => $this->access->user()->targets]);
    }

    #[Route('', methods: 'PUT')]
    public function keep(Request $request): JsonResponse
    {
        $this->targets->keep($this->access->user(), Body::of($request));

        return $this->list();
    }
}
