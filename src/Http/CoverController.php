<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Role;
use Wattage\App\Handover\Covers;
use Wattage\App\Project\ProjectAccess;

/** The cover picture that goes into the files of a project. */
#[Route('/api/projects/{id}/cover')]
final readonly class CoverController
{
    public function __construct(private ProjectAccess $access, private Covers $covers)
    {
    }

    #[Route('', methods: 'GET')]
    public function show(Uuid $id, Request $request, StoredFile $file): Response
    {
        $project = $this->access->project($id, Role::Viewer);

        return $this->covers->has($project) ? $file->answer(Covers::path($project->id), 'image/jpeg', $request)->setMaxAge(0) : new Response(status: 204);
    }

    #[Route('', methods: 'PUT')]
    public function keep(Uuid $id, Request $request): Response
    {
        $project = $this->access->project($id, Role::Editor);
        $bytes = $request->getContent();
        \strlen($bytes) <= Covers::MOST_BYTES || throw new HttpException(413, 'A cover picture has 10 MB at most. Make it smaller; 1400 by 1400 pixels are enough.');
        $this->covers->keep($project, $bytes);

        return new Response(status: 204);
    }

    #[Route('', methods: 'DELETE')]
    public function remove(Uuid $id): Response
    {
        $this->covers->remove($this->access->project($id, Role::Editor));

        return new Response(status: 204);
    }
}
