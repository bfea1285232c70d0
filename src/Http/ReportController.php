<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Role;
use Wattage\App\Handover\FileName;
use Wattage\App\Handover\Report;
use Wattage\App\Project\ProjectAccess;

/** The proof that goes with a file. */
final readonly class ReportController
{
    private const TYPES = ['html' => 'text/html; charset=utf-8', 'pdf' => 'application/pdf', 'json' => 'application/json', 'csv' => 'text/csv; charset=utf-8'];

    public function __construct(private ProjectAccess $access, private Report $report)
    {
    }

    #[Route('/api/deliveries/{id}/report.{format}', requirements: ['format' => 'html|pdf|json|csv'], methods: 'GET')]
    public function show(Uuid $id, string $format, Request $request): Response
    {
        $delivery = $this->access->delivery($id, Role::Viewer);
        null !== $delivery->outcome || throw new ConflictHttpException('There is nothing to report of it yet: it is not finished, or was made before reports were.');
        $before = $request->query->getInt('before');
        $data = $this->report->data($delivery, $before > 0 ? $before : null);
        $body = $this->report->written($data, $format);
        $name = pathinfo(FileName::of($delivery), \PATHINFO_FILENAME)." report.{$format}";
        $plain = (string) preg_replace('/[^\x20-\x7e]|[%"\\\\\/]/', '-', $name);

        return new Response($body, headers: [
            'Content-Type' => self::TYPES[$format],
            'Content-Disposition' => HeaderUtils::makeDisposition('html' === $format ? HeaderUtils::DISPOSITION_INLINE : HeaderUtils::DISPOSITION_ATTACHMENT, $name, $plain),
            'Cache-Control' => 'no-store',
        ]);
    }
}
