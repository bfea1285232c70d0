<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Media\Damaged;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Spool;
use Wattage\App\Media\Uploads;
use Wattage\App\Media\WavHeaderReader;
use Wattage\App\Storage\LocalStore;
use Wattage\App\Storage\MissingFile;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Signal\PcmFormat;
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

    public function testAnUploadIsStoredPieceByPieceAndAPieceCanBeSentAgain(): void
    {
        $uploads = new Uploads(new LocalStore($this->directory));
        $id = Uuid::v7();
        $uploads->add($id, 0, 'abcdef', 6);
        $uploads->add($id, 6, 'ghi', 6);
        $uploads->add($id, 6, 'GHI', 6);
        self::assertTrue($uploads->isWhole($id, 9));
        self::assertSame('abcdefGHI', $this->assembled($uploads, $id, 9));
        $uploads->clear($id);
        self::assertFalse($uploads->isWhole($id, 9));
    }

    public function testWhatStoodBehindAPieceSentAgainInAnotherLengthIsLeftOut(): void
    {
        $uploads = new Uploads(new LocalStore($this->directory));
        $id = Uuid::v7();
        foreach ([[0, 'abcd'], [4, 'efgh'], [0, 'AB'], [2, 'Cxx'], [3, 'DE']] as [$offset, $bytes]) {
            $uploads->add($id, $offset, $bytes, 8);
        }
        self::assertSame('ABCDE', $this->assembled($uploads, $id, 5));
    }

    public function testAnUploadOfWhichSomethingIsMissingIsNotPutTogether(): void
    {
        $uploads = new Uploads(new LocalStore($this->directory));
        $id = Uuid::v7();
        $uploads->add($id, 0, 'abc', 6);
        $uploads->add($id, 5, 'fgh', 6);
        $this->expectException(MissingFile::class);
        $this->assembled($uploads, $id, 8);
    }

    /** Somebody stops an upload while a piece of it is on its way to the disk. */
    public function testAPieceWhoseUploadIsRemovedMeanwhileIsSaidToBeGoneAndNothingElseHappens(): void
    {
        $store = new LocalStore($this->directory);
        $remover = new Process(['php', '-r', 'for (;;) { if (@rename("uploads/one", $gone = "uploads/gone".hrtime(true))) { array_map("unlink", glob("{$gone}/*")); rmdir($gone); } }'], $this->directory);
        $remover->start();
        $gone = 0;
        // It begins when it does on a busy machine.
        for ($piece = 0, $until = microtime(true) + 30.0; microtime(true) < $until && $gone < 3; ++$piece) {
            try {
                $store->write("uploads/one/{$piece}", 'bytes');
            } catch (MissingFile) {
                ++$gone;
            }
        }
        $remover->stop(0);
        self::assertSame(3, $gone);
    }

    public function testEveryTryOfAJobHasADirectoryOfItsOwn(): void
    {
        $spool = new Spool($this->directory);
        $id = Uuid::v7();
        $first = $spool->workDirectory($id);
        file_put_contents("{$first}/half", 'x');
        $second = $spool->workDirectory($id);
        self::assertSame([], glob("{$second}/*"));
        self::assertSame(2, $spool->sweep(static fn (string $job): bool => $job !== (string) $id));
        self::assertSame([], glob("{$this->directory}/*"));
    }

    public function testWhatAWorkerHasInHandIsNotSweptAway(): void
    {
        $spool = new Spool($this->directory);
        $spool->workDirectory($id = Uuid::v7());
        self::assertSame(0, $spool->sweep(static fn (string $job): bool => $job === (string) $id));
    }

    public function testWorkThatWouldFillTheDiskIsRefusedBeforeItBegins(): void
    {
        $this->expectException(NoRoom::class);
        $this->expectExceptionMessage('The work disk of this server has no room for “long.wav”: it needs 1000000.1 GB');
        (new Spool($this->directory))->needs(10 ** 15, 'long.wav');
    }

    /** The device file /dev/full takes no byte, as a full disk does. */
    public function testAFullDiskIsSaidByName(): void
    {
        mkdir($this->directory);
        symlink('/dev/full', "{$this->directory}/voice");
        $file = OutFile::create("{$this->directory}/voice", 'voice.wav', 'work disk of this server');
        $this->expectException(NoRoom::class);
        $this->expectExceptionMessage('The work disk of this server is full: “voice.wav” could not be stored');
        $file->write('RIFF');
    }

    public function testTheCoreSaysWhenWhatItMeasuresCannotBeWritten(): void
    {
        $full = fopen('/dev/full', 'w') ?: self::fail('/dev/full');
        $measurer = new SourceMeasurer(PcmFormat::of(1, 16), 48_000, $full, Sound::memory());
        $this->expectException(NotWritten::class);
        $measurer->push(str_repeat("\0", 96_000));
    }

    public function testUploadsCannotBeReadByOtherAccounts(): void
    {
        new LocalStore($this->directory.'/media');
        self::assertSame(0, fileperms($this->directory.'/media') & 0o007);
    }

    public function testWhatIsStoredIsReadFromAnywhereInIt(): void
    {
        $store = new LocalStore($this->directory);
        $file = Sound::file('0123456789');
        $store->put('a/b', $file);
        self::assertFileDoesNotExist($file);
        self::assertSame(10, $store->open('a/b')->size());
        self::assertSame('456', $store->open('a/b')->read(4, 3));
        self::assertSame('89', $store->open('a/b')->read(8, 30));
        self::assertSame(['a/b'], array_keys(iterator_to_array($store->files('a'))));
        $store->delete('a/b');
        self::assertFalse($store->has('a/b'));
        $this->expectException(MissingFile::class);
        $store->open('a/b');
    }

    public function testAFileThatCameToBeStoredOtherwiseIsNotTaken(): void
    {
        $store = new MediaStore(new LocalStore($this->directory));
        $this->expectException(Damaged::class);
        $store->put('a/b', Sound::file('with a hole'), hash('sha256', 'whole'), static fn () => null);
    }

    private function assembled(Uploads $uploads, Uuid $id, int $size): string
    {
        $file = "{$this->directory}/whole";
        $sha256 = $uploads->assemble($id, $size, OutFile::create($file, 'whole', 'disk'), static fn () => null);
        self::assertSame(hash_file('sha256', $file), $sha256);

        return (string) file_get_contents($file);
    }

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
