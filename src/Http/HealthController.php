<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\DBAL\Connection;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Wattage\App\Upkeep\Monitor;

/** For those who run the servers: whether this one can work, and figures for a monitor. */
final readonly class HealthController
{
    public function __construct(private Monitor $monitor, #[Autowire('%env(WATTAGE_METRICS_TOKEN)%')] private string $token)
    {
    }

    /** Answered only when the database answers; else it is 503, as everything is then. */
    #[Route('/api/health', methods: 'GET')]
    public function health(Connection $database): JsonResponse
    {
        $database->fetchOne('SELECT 1');

        return new JsonResponse(['status' => 'ok'], headers: ['Cache-Control' => 'no-store']);
    }

    /** In the text format of OpenMetrics, for whoever has the token; to others there is no such address. */
    #[Route('/api/metrics', methods: 'GET')]
    public function metrics(Request $request): Response
    {
        $shown = (string) $request->headers->get('Authorization');
        '' !== $this->token && hash_equals("Bearer {$this->token}", $shown) || throw new NotFoundHttpException('There is nothing here.');
        $lines = '';
        foreach ($this->monitor->figures() as $name => [$what, $value]) {
            $lines .= "# HELP {$name} {$what}\n# TYPE {$name} gauge\n{$name} {$value}\n";
        }

        return new Response("{$lines}# EOF\n", headers: ['Content-Type' => 'application/openmetrics-text; version=1.0.0; charset=utf-8', 'Cache-Control' => 'no-store']);
    }
}
