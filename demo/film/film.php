<?php

declare(strict_types=1);

// Draws the film of The Salt Ferry, 336 seconds, and writes its frames to the standard output: rgb24, 1280x720, 12.5 a second.
// It cuts where the sound does. With a second as an argument it draws the one frame at that moment.

require __DIR__.'/Sheet.php';
require __DIR__.'/Things.php';
require __DIR__.'/Shots.php';

$at = isset($argv[1]) ? (float) $argv[1] : null;
for ($frame = 0; $frame < 4200; ++$frame) {
    $t = $at ?? $frame / 12.5;
    fwrite(\STDOUT, Shots::at($t)->pixels());
    if (null !== $at) {
        break;
    }
}
