<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Figures\Measures;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Refused;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Project\Sources;
use Wattage\App\Project\SourceView;
use Wattage\App\Request\Body;
use Wattage\App\Request\ProblemResponse;
use Wattage\App\Security\Record;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Loudness\AverageOutline;
use Wattage\Core\Loudness\Overview;
use Wattage\Core\Signal\WavHeader;
use Wattage\Core\Speech\HeardPart;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Side;

/** Files brought in: upload, progress, and their sound for the player and the screen. */
final readonly class SourceController
{
    private const MAX_PIECE = 16 * 1024 ** 2;
    /** The screen gets its sound in parts of this length. */
    public const SEGMENT_SECONDS = 2;

    public function __construct(private ProjectAccess $access, private Sources $sources, private MediaStore $store, private EntityManagerInterface $entities, private SourceView $views, private Record $record, private Measures $measures)
    {
    }

    #[Route('/api/projects/{id}/sources', methods: 'GET')]
    public function list(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $sources = $this->entities->getRepository(Source::class)->findBy(['project' => $project], ['createdAt' => 'ASC', 'id' => 'ASC']);

        return new JsonResponse(['sources' => $this->views->all($project, $sources)]);
    }

    #[Route('/api/projects/{id}/sources', methods: 'POST')]
    public function announce(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $body = Body::of($request);
        try {
            $source = $this->sources->announce($project, $body->string('name'), $body->int('size', 0, Sources::MAX_BYTES));
        } catch (Refused|NoRoom $reason) {
            return ProblemResponse::of(422, $reason->getMessage(), 'size');
        }

        return new JsonResponse($this->views->one($source), 201);
    }

    #[Route('/api/sources/{id}/bytes', methods: 'PUT')]
    public function receive(Uuid $id, Request $request): JsonResponse
    {
        $source = $this->access->source($id, Role::Editor);
        $bytes = $request->getContent();
        \strlen($bytes) <= self::MAX_PIECE || throw new HttpException(413, 'This piece is too large. Send at most 16 MiB at once.');
        $offset = $request->query->getInt('offset');
        $offset >= 0 || throw new HttpException(400, 'The offset of a piece cannot be below 0.');
        $this->sources->receive($source, $this->access->user(), $offset, $bytes);

        return new JsonResponse($this->views->one($source));
    }

    #[Route('/api/sources/{id}/retry', methods: 'POST')]
    public function retry(Uuid $id): JsonResponse
    {
        $source = $this->access->source($id, Role::Editor);
        $this->sources->retry($source, $this->access->user());

        return new JsonResponse($this->views->one($source));
    }

    #[Route('/api/sources/{id}', methods: 'DELETE')]
    public function remove(Uuid $id): Response
    {
        $source = $this->access->source($id, Role::Editor);
        $this->sources->remove($source);
        $this->record->ofProject($source->project, $this->access->user(), "removed the recording “{$source->name}”");

        return new Response(status: 204);
    }

    /** Two seconds of sound as a small WAV file, cut on sample boundaries. */
    #[Route('/api/sources/{id}/segments/{number}', requirements: ['number' => '\d{1,6}'], methods: 'GET')]
    public function segment(Uuid $id, int $number): Response
    {
        $source = $this->ready($id);
        $length = self::SEGMENT_SECONDS * Mix::DEFAULT_RATE;
        $frames = min($length, (int) $source->frames - $number * $length);
        $frames > 0 || throw new NotFoundHttpException('The source ends before this segment.');
        $sound = $this->store->sound($source);
        $format = $sound->format();

        $response = new Response(WavHeader::of($format->channels, $format->bits, false, Mix::DEFAULT_RATE, $frames).$sound->read($number * $length, $frames), headers: ['Content-Type' => 'audio/wav']);

        return StoredFile::kept($response);
    }

    /** Averages for drawing, worked out from the stored blocks each time: browsers keep them. */
    #[Route('/api/sources/{id}/average/{level}', requirements: ['level' => '[1-4]'], methods: 'GET')]
    public function average(Uuid $id, int $level, Request $request): Response
    {
        $source = $this->ready($id);
        $only = 2 === $source->channels ? Side::tryFrom($request->query->getString('channel')) : null;
        $points = AverageOutline::of($this->store->blocks($source), $level, null === $only ? null : (int) (Side::Right === $only));
        $response = new Response($points, headers: ['Content-Type' => 'application/octet-stream']);

        return StoredFile::kept($response);
    }

    /** Outline for drawing: uint16 peaks; see Overview for the levels. */
    #[Route('/api/sources/{id}/outline/{level}', requirements: ['level' => '\d'], methods: 'GET')]
    public function outline(Uuid $id, int $level, Request $request, StoredFile $file): Response
    {
        $source = $this->ready($id);
        isset(Overview::BINS_PER_POINT[$level]) || throw new NotFoundHttpException('There is no outline this fine.');
        $side = 2 === $source->channels ? Side::tryFrom($request->query->getString('channel')) : null;
        $part = "overview-{$level}".(null === $side ? '' : "-{$side->value}");

        return $file->part(MediaStore::pathOf($source, $part), 'application/octet-stream', $request);
    }

    /** What of a source stands out of its background, or is spoken, where it is asked for that: for trimming dead air. */
    #[Route('/api/sources/{id}/heard', methods: 'GET')]
    public function heard(Uuid $id, Request $request): JsonResponse
    {
        $source = $this->ready($id);
        $from = max(0, $request->query->getInt('from'));
        $to = min((int) $source->frames, $request->query->getInt('to', (int) $source->frames));
        $speech = $request->query->getBoolean('speech') ? $this->measures->activity($source, Mix::DEFAULT_RATE, Aim::USUAL_SENSITIVITY) : [];
        $heard = HeardPart::of($this->store->speechLevels($source), Span::of($from, $to), Mix::DEFAULT_RATE, $speech);

        return new JsonResponse(['heard' => null === $heard ? null : ['from' => $heard->from, 'to' => $heard->to]]);
    }

    /** The small picture, in as many bytes as the player asks for. */
    #[Route('/api/sources/{id}/picture', methods: 'GET')]
    public function picture(Uuid $id, Request $request, StoredFile $file): Response
    {
        $source = $this->ready($id);
        PictureState::Ready === $source->picture || throw new NotFoundHttpException('This source has no picture, or it is not made yet.');

        return $file->answer(MediaStore::pathOf($source, 'picture'), 'video/webm', $request);
    }

    /** Small frames of it for the timeline; PictureFrames says how many, and how far apart. */
    #[Route('/api/sources/{id}/frames/{sheet}', requirements: ['sheet' => '\d{1,4}'], methods: 'GET')]
    public function frames(Uuid $id, int $sheet, Request $request, StoredFile $file): Response
    {
        $path = MediaStore::pathOf($this->ready($id), "frames-{$sheet}");
        $this->store->has($path) || throw new NotFoundHttpException('There are no frames for this part of the picture, or not yet.');

        return $file->part($path, 'image/jpeg', $request);
    }

    /** Where it cuts, source samples; null as long as its picture is not made. */
    #[Route('/api/sources/{id}/cuts', methods: 'GET')]
    public function cuts(Uuid $id): JsonResponse
    {
        $source = $this->ready($id);
        $cuts = $this->store->has(MediaStore::pathOf($source, 'cuts')) ? $this->store->bytes($source, 'cuts') : 'null';

        return new JsonResponse("{\"cuts\":{$cuts}}", json: true);
    }

    private function ready(Uuid $id): Source
    {
        $source = $this->access->source($id, Role::Viewer);

        return SourceState::Ready === $source->state ? $source : throw new NotFoundHttpException('This source is not ready yet.');
    }
}
