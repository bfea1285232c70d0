<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Role;
use Wattage\App\Project\Cuts;
use Wattage\App\Project\History;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;
use Wattage\Core\Timeline\Mix;

/** Cuts in, as edits to send back, and out. */
#[Route('/api/projects/{id}')]
final readonly class CutController
{
    public function __construct(private ProjectAccess $access, private History $history, private Cuts $cuts)
    {
    }

    /** What of a cut that was made elsewhere can be laid here: an edit to send back, and what is missing for the rest. */
    #[Route('/cut', methods: 'POST')]
    public function look(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);

        return new JsonResponse($this->cuts->look($project, $this->history->mix($project), $request->getContent()), headers: ['Cache-Control' => 'no-store']);
    }

    /** Sources laid together, each on a track of its own: an edit to send back. */
    #[Route('/together', methods: 'POST')]
    public function together(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $mix = $this->history->mix($project);
        $asked = Body::of($request);
        $asked->onlyHave('sources', 'at', 'byTime');

        return new JsonResponse(['edit' => $this->cuts->together($project, $mix, $asked->names('sources'), $asked->int('at', 0, Mix::MAX_HOURS * 3600 * $mix->rate, 0), $asked->bool('byTime', false))]);
    }

    /** The mix as a cut in OpenTimelineIO, which carries the whole of it as metadata. */
    #[Route('/mix.otio', methods: 'GET')]
    public function otio(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return JsonResponse::fromJsonString($this->cuts->otio($project, $this->history->mix($project)), headers: ['Content-Disposition' => 'attachment; filename="mix.otio"']);
    }

    /** The mix as an edit decision list, for what reads nothing else. */
    #[Route('/mix.edl', methods: 'GET')]
    public function edl(Uuid $id): Response
    {
        $project = $this->access->project($id, Role::Viewer);

        return new Response($this->cuts->edl($project, $this->history->mix($project)), headers: ['Content-Type' => 'text/plain; charset=utf-8', 'Content-Disposition' => 'attachment; filename="mix.edl"']);
    }
}
