<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** Goes over sound once, for its K-weighted power and its true peak. */
interface Scan
{
    /**
     * @param string $bytes whole frames, those that follow the last ones
     *
     * @return array{float, float} sum over channels and samples of the squares: K-weighted with the channels' weights, and plain; full scale is 1
     */
    public function measure(string $bytes): array;

    /** @return array{float, float} true peak and sample peak so far, full scale is 1; what only later samples show is not in it */
    public function peaks(): array;

    /** Looks for peaks from here on. */
    public function forgetPeaks(): void;

    /** @return array{float, float} true peak and sample peak, full scale is 1; nothing can be measured after */
    public function finish(): array;
}
