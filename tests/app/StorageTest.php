<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use League\Flysystem\Config;
use League\Flysystem\Filesystem;
use League\Flysystem\Local\LocalFilesystemAdapter;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Spool;
use Wattage\App\Media\WavHeaderReader;
use Wattage\Core\Signal\WavHeader;
use Wattage\Tests\support\Sound;

/** Where bytes are kept, and what a header promises of them. */
final class StorageTest extends TestCase
{
    private string $directory;

    protected function setUp(): void
    {
        $this->directory = sys_get_temp_dir().'/wattage-store-'.bin2hex(random_bytes(4));
    }

    protected function tearDown(): void
    {
        (new \Symfony\Component\Filesystem\Filesystem())->remove($this->directory);
    }

    public function testAnUploadIsWrittenPieceByPieceAndAPieceCanBeSentAgain(): void
    {
        $spool = new Spool($this->directory);
        $id = Uuid::v7();
        $spool->write($id, 0, 'abcdef');
        $spool->write($id, 6, 'ghi');
        $spool->write($id, 3, 'DEF');
        self::assertSame('abcDEF', file_get_contents($spool->upload($id)), 'what stood behind a piece sent again is dropped');
        $spool->clear($id);
        self::assertFileDoesNotExist($spool->upload($id));
    }

    public function testAJobsDirectoryIsEmptyAtEveryTry(): void
    {
        $spool = new Spool($this->directory);
        $id = Uuid::v7();
        file_put_contents($spool->workDirectory($id).'/half', 'x');
        self::assertSame([], glob($spool->workDirectory($id).'/*'));
        $spool->clear($id);
        self::assertSame([], glob("{$this->directory}/*.work"));
    }

    public function testUploadsCannotBeReadByOtherAccounts(): void
    {
        new Spool($this->directory.'/spool');
        self::assertSame(0, fileperms($this->directory.'/spool') & 0o007);
    }

    public function testWhatIsStoredIsReadFromAnywhereInIt(): void
    {
        $store = new MediaStore(new Filesystem(new LocalFilesystemAdapter($this->directory)));
        $store->put('a/b', Sound::file('0123456789'));
        $stream = $store->open('a/b');
        fseek($stream, 4);
        self::assertSame('456', fread($stream, 3));
        self::assertTrue($store->has('a/b'));
        $store->delete('a/b');
        self::assertFalse($store->has('a/b'));
    }

    /** A store across a network hands out streams that only go forward; those are read from a copy. */
    public function testAStoreWhoseStreamsOnlyGoForwardServesAsWell(): void
    {
        $adapter = new class($this->directory) extends LocalFilesystemAdapter {
            public function readStream(string $path)
            {
                $process = popen('cat '.escapeshellarg(StorageTest::$root.'/'.$path), 'r');
                \assert(\is_resource($process));

                return $process;
            }
        };
        self::$root = $this->directory;
        $adapter->write('far', '0123456789', new Config());
        $stream = (new MediaStore(new Filesystem($adapter)))->open('far');
        fseek($stream, 7);
        self::assertSame('789', fread($stream, 3));
    }

    public static string $root = '';

    #[DataProvider('headers')]
    public function testAWavHeaderSaysHowMuchSoundThereShouldBe(string $bytes, ?float $seconds): void
    {
        self::assertSame($seconds, WavHeaderReader::promisedSeconds(Sound::file($bytes)));
    }

    /** @return iterable<string, array{string, ?float}> */
    public static function headers(): iterable
    {
        $wav = WavHeader::of(2, 16, false, 48_000, 96_000);
        yield 'two seconds, all of it missing' => [$wav, 2.0];
        yield 'above 4 GiB' => [WavHeader::of(2, 24, false, 48_000, 800_000_000), 800_000_000 / 48_000];
        yield 'written without knowing' => [substr_replace($wav, "\xFF\xFF\xFF\xFF", 40, 4), null];
        yield 'an empty chunk before the sound' => [substr_replace($wav, "LIST\0\0\0\0", 36, 0), 2.0];
        yield 'another format' => ['fLaC'.str_repeat("\0", 60), null];
        yield 'no format stated' => ['RIFF'.pack('V', 100).'WAVEdata'.pack('V', 64).str_repeat("\0", 64), null];
        yield 'cut off in the header' => [substr($wav, 0, 30), null];
        yield 'nothing' => ['', null];
        yield 'a chunk larger than the file' => ['RIFF'.pack('V', 100).'WAVEjunk'.pack('V', 0x7FFFFFFF), null];
    }
}
