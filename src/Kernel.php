<?php

declare(strict_types=1);

namespace Wattage\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\HttpKernel\Kernel as BaseKernel;

final class Kernel extends BaseKernel
{
    use MicroKernelTrait;

    public function getCacheDir(): string
    {
        return $this->varDir().'/cache/'.$this->environment;
    }

    public function getLogDir(): string
    {
        return $this->varDir().'/log';
    }

    /** Each running instance (the demo, a test run) keeps its own files. */
    private function varDir(): string
    {
        $dir = $_SERVER['WATTAGE_VAR'] ?? '';

        return \is_string($dir) && '' !== $dir ? $dir : $this->getProjectDir().'/var';
    }
}
