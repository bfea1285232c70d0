<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\Role;
use Wattage\App\Job\Queue;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Quotas;
use Wattage\App\Project\History;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Security\Record;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Signal\SampleFormat;

/** Rendering the programme to a file, and fetching it. */
final readonly class DeliveryController
{
    public function __construct(private ProjectAccess $access, private History $history, private EntityManagerInterface $entities, private Quotas $quotas, private MediaStore $store, private Once $once, private Record $record)
    {
    }

    #[Route('/api/projects/{id}/deliveries', methods: 'GET')]
    public function list(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $deliveries = $this->entities->getRepository(Delivery::class)->findBy(['project' => $project], ['createdAt' => 'DESC', 'id' => 'DESC'], 50);

        return new JsonResponse(['deliveries' => array_map($this->view(...), $deliveries)]);
    }

    #[Route('/api/projects/{id}/deliveries', methods: 'POST')]
    public function render(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $made = $this->once->run($request, $this->access->user(), function () use ($project, $request): string {
            $body = Body::of($request);
            // What was seen when it was asked for, whatever others do meanwhile.
            $revision = $body->int('revision', 1, default: $project->head);
            $format = SampleFormat::tryFrom($body->string('format')) ?? throw InvalidDocument::wrongType('format', 'pcm16, pcm24 or float32');
            $mix = $this->history->mixAt($project, $revision);
            if (0 === $mix->length()) {
                throw new HttpException(422, 'There is nothing to render yet. Place a clip on a track first.');
            }
            $this->quotas->render($this->access->user());
            $delivery = new Delivery($project, $revision, $format, $this->access->user(), intdiv($mix->length(), $mix->rate));
            $this->entities->persist($delivery);
            $this->entities->flush();

            return (string) $delivery->id;
        });

        return new JsonResponse($this->view($this->access->delivery(Uuid::fromString($made), Role::Editor)), 202);
    }

    /** Stops one that is not finished; removes one that is over, and its file. */
    #[Route('/api/deliveries/{id}', methods: 'DELETE')]
    public function remove(Uuid $id, Queue $queue): Response
    {
        $delivery = $this->access->delivery($id, Role::Editor);
        if ($delivery->job->state->isOver()) {
            $this->entities->remove($delivery);
            $this->entities->remove($delivery->job);
            $this->entities->flush();
            $this->store->delete($delivery->path());
            $this->record->ofProject($delivery->project, $this->access->user(), "removed the file “{$this->fileName($delivery)}”");

            return new Response(status: 204);
        }
        $queue->cancel($delivery->job);
        $this->entities->refresh($delivery->job);

        return new JsonResponse($this->view($delivery));
    }

    #[Route('/api/deliveries/{id}/file', methods: 'GET')]
    public function file(Uuid $id, Request $request, StoredFile $file): Response
    {
        $delivery = $this->access->delivery($id, Role::Viewer);
        JobState::Done === $delivery->job->state || throw new ConflictHttpException('This delivery is not finished.');
        $this->store->has($delivery->path()) || throw new NotFoundHttpException('The file is gone. Render it again.');

        return $file->answer($delivery->path(), 'audio/wav', $request, $this->fileName($delivery));
    }

    private function fileName(Delivery $delivery): string
    {
        return trim((string) preg_replace('~[/\\\\%]+~', '-', $delivery->project->name))." r{$delivery->revision}.wav";
    }

    /** @return array<string, mixed> */
    private function view(Delivery $delivery): array
    {
        $job = $delivery->job;
        $running = null === $job->startedAt ? 0 : time() - $job->startedAt->getTimestamp();

        return [
            'id' => (string) $delivery->id,
            'revision' => $delivery->revision,
            'format' => $delivery->format->value,
            'state' => $job->state->value,
            'progress' => $job->progress,
            'secondsLeft' => JobState::Running === $job->state && $job->progress > 0.02 ? (int) round($running / $job->progress * (1 - $job->progress)) : null,
            'problem' => $job->problem,
            'size' => $delivery->size,
            'clipping' => $delivery->clipping,
            'name' => $this->fileName($delivery),
            'createdAt' => $delivery->createdAt->format(\DATE_ATOM),
        ];
    }
}
