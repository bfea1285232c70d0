<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Handover\FileName;
use Wattage\App\Handover\Orders;
use Wattage\App\Handover\Recipes;
use Wattage\App\Job\Queue;
use Wattage\App\Media\MediaStore;
use Wattage\App\Project\History;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;
use Wattage\App\Request\Once;
use Wattage\App\Security\Record;
use Wattage\Core\Handover\ExcerptKind;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\NamePattern;
use Wattage\Core\Handover\Tags;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Timeline\Mix;

/** Rendering the programme to a file, and fetching it. */
final readonly class DeliveryController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private History $history, private Orders $orders, private MediaStore $store, private Once $once, private Record $record)
    {
    }

    #[Route('/api/projects/{id}/deliveries', methods: 'GET')]
    public function list(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $deliveries = $this->entities->getRepository(Delivery::class)->findBy(['project' => $project], ['createdAt' => 'DESC', 'id' => 'DESC'], 50);

        return new JsonResponse(['deliveries' => array_map($this->view(...), $deliveries)]);
    }

    /** The whole programme as it is, as one WAV file. */
    #[Route('/api/projects/{id}/deliveries', methods: 'POST')]
    public function render(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $handover = $this->once->run($request, $this->access->user(), function () use ($project, $request): string {
            $body = Body::of($request);
            $format = SampleFormat::tryFrom($body->string('format')) ?? throw InvalidDocument::wrongType('format', 'pcm16, pcm24 or float32');

            return (string) $this->orders->take($project, $this->access->user(), $body->int('revision', 1, default: $project->head), [FileOrder::plain($format)], new NamePattern('{project} r{revision}'));
        });

        return new JsonResponse($this->started($project, $handover)[0], 202);
    }

    /** Several files at once, by a recipe or by what is asked for here. */
    #[Route('/api/projects/{id}/handovers', methods: 'POST')]
    public function handOver(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $handover = $this->once->run($request, $this->access->user(), function () use ($project, $request): string {
            $body = Body::of($request);
            $body->onlyHave('revision', 'files', 'pattern', 'recipe', 'tags');
            $tags = $body->has('tags') ? $body->object('tags') : Fields::of([]);
            $tags->onlyHave('title', 'programme', 'episode', 'author');

            return (string) $this->orders->take(
                $project,
                $this->access->user(),
                $body->int('revision', 1, default: $project->head),
                Recipes::files($body),
                new NamePattern($body->string('pattern', NamePattern::USUAL)),
                mb_substr($body->string('recipe', ''), 0, 120),
                new Tags($tags->string('title', ''), $tags->string('programme', ''), $tags->string('episode', ''), $tags->string('author', '')),
            );
        });

        return new JsonResponse(['deliveries' => $this->started($project, $handover)], 202);
    }

    /** Stops one that is not finished; removes one that is over, and its file. */
    #[Route('/api/deliveries/{id}', methods: 'DELETE')]
    public function remove(Uuid $id, Queue $queue): Response
    {
        $delivery = $this->access->delivery($id, Role::Editor);
        if ($delivery->job->state->isOver()) {
            $name = FileName::of($delivery, $this->mixOf($delivery));
            $this->entities->remove($delivery);
            $this->entities->remove($delivery->job);
            $this->entities->flush();
            $this->store->delete($delivery->path());
            $this->record->ofProject($delivery->project, $this->access->user(), "removed the file “{$name}”");

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

        return $file->answer($delivery->path(), $delivery->order()->format->mediaType(), $request, FileName::of($delivery, $this->mixOf($delivery)));
    }

    /** @return list<array<string, mixed>> */
    private function started(Project $project, string $handover): array
    {
        return array_map($this->view(...), $this->entities->getRepository(Delivery::class)->findBy(['project' => $project, 'handover' => $handover], ['id' => 'ASC']));
    }

    /** Only where a track's name may be asked for. */
    private function mixOf(Delivery $delivery): ?Mix
    {
        return ExcerptKind::Track === $delivery->order()->excerpt->kind ? $this->history->mixAt($delivery->project, $delivery->revision) : null;
    }

    /** @return array<string, mixed> */
    private function view(Delivery $delivery): array
    {
        $job = $delivery->job;
        $running = null === $job->startedAt ? 0 : time() - $job->startedAt->getTimestamp();

        return [
            'id' => (string) $delivery->id,
            'revision' => $delivery->revision,
            'order' => $delivery->document,
            'handover' => (string) $delivery->handover,
            'recipe' => $delivery->recipe,
            // Loudness along the file is for its report: screens ask for this list all the time.
            'outcome' => null === $delivery->outcome ? null : array_diff_key($delivery->outcome, ['history' => 0]),
            'state' => $job->state->value,
            'progress' => $job->progress,
            'secondsLeft' => JobState::Running === $job->state && $job->progress > 0.02 ? (int) round($running / $job->progress * (1 - $job->progress)) : null,
            'problem' => $job->problem,
            'size' => $delivery->size,
            'clipping' => $delivery->clipping,
            'name' => FileName::of($delivery, $this->mixOf($delivery)),
            'outOfDate' => $delivery->revision !== $delivery->project->head,
            'createdAt' => $delivery->createdAt->format(\DATE_ATOM),
        ];
    }
}
