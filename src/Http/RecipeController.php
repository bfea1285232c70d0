<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Recipe;
use Wattage\App\Handover\Recipes;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;

/** The named sets of files that an account hands over. */
#[Route('/api/recipes')]
final readonly class RecipeController
{
    public function __construct(private ProjectAccess $access, private Recipes $recipes)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(): JsonResponse
    {
        return new JsonResponse(['recipes' => array_map(self::view(...), $this->recipes->of($this->access->user()))]);
    }

    #[Route('', methods: 'POST')]
    public function make(Request $request): JsonResponse
    {
        return new JsonResponse(self::view($this->recipes->make($this->access->user(), Body::of($request))), 201);
    }

    #[Route('/{id}', methods: 'PUT')]
    public function change(Uuid $id, Request $request): JsonResponse
    {
        $recipe = $this->recipes->one($this->access->user(), $id);
        $this->recipes->change($recipe, Body::of($request));

        return new JsonResponse(self::view($recipe));
    }

    #[Route('/{id}', methods: 'DELETE')]
    public function remove(Uuid $id): Response
    {
        $this->recipes->remove($this->recipes->one($this->access->user(), $id));

        return new Response(status: 204);
    }

    /** @return array<string, mixed> */
    private static function view(Recipe $recipe): array
    {
        return ['id' => (string) $recipe->id, 'name' => $recipe->name, 'pattern' => $recipe->pattern, 'files' => $recipe->files];
    }
}
