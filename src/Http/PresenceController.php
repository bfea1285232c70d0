<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Role;
use Wattage\App\Project\Presence;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;
use Wattage\Core\Interchange\InvalidDocument;

/** What every open screen asks all the time: is anything new, and who else is there. */
#[Route('/api/projects/{id}/presence/{screen}')]
final readonly class PresenceController
{
    public function __construct(private ProjectAccess $access, private Presence $presence)
    {
    }

    #[Route('', methods: 'PUT')]
    public function say(Uuid $id, Uuid $screen, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $user = $this->access->user();
        $body = Body::of($request);
        $body->onlyHave('holds');
        $holds = $body->has('holds') ? $body->string('holds') : null;
        if (null !== $holds && 1 !== preg_match('/^(clip|fader|keyframes):[\w-]{1,64}$/D', $holds)) {
            throw InvalidDocument::wrongType('holds', 'clip:, fader: or keyframes: and an id');
        }

        return new JsonResponse([
            'revision' => $project->head,
            'comments' => $project->commentsVersion,
            'role' => $project->roleOf($user)?->value,
            ...$this->presence->seen($project, $user, $screen, $holds),
        ], headers: ['Cache-Control' => 'no-store']);
    }

    #[Route('', methods: 'DELETE')]
    public function leave(Uuid $id, Uuid $screen): Response
    {
        $this->presence->gone($this->access->project($id, Role::Viewer), $this->access->user(), $screen);

        return new Response(status: 204);
    }
}
