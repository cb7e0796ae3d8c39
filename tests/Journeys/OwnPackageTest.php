<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\HeldPackage;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** The vendor's service breaks the download off, and the technician brings the package in from a file. */
final class OwnPackageTest extends JourneyTestCase
{
    public function test_a_cut_download_is_said_and_the_file_is_brought_in(): void
    {
        $first = $this->openJob('SKL-0088');
        $this->acceptRoute($first);
        $this->workUntil($first, StepCode::FetchPackage, StepState::Done);
        $file = $first->refresh()->takenRoute()->leg(0)->package->sha256;
        $path = (string) config('jade.packages')."/{$file}";
        $content = (string) file_get_contents(is_file($path) ? $path : "{$path}.fwp");
        $this->postJson("/api/v1/jobs/{$first->id}/leave")->assertOk();
        DB::table('held_packages')->delete();
        array_map(unlink(...), glob(config('jade.packages').'/*') ?: []);

        $this->practice('brightmere', ['cutAfterBytes' => 100_000]);
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->practice('brightmere', ['cutAfterBytes' => null, 'broken' => true]);
        $this->workUntilProblem($job, StepCode::FetchPackage, 'download-cut');
        $why = $job->step(StepCode::FetchPackage)->problem->detail ?? '';
        self::assertStringContainsString('The download of the package broke off', $why);
        self::assertStringNotContainsString('cable', $why);

        $this->call('POST', '/api/v1/packages', [], [], [], [
            'CONTENT_TYPE' => 'application/octet-stream',
            'HTTP_ACCEPT' => 'application/json',
        ], $content)->assertCreated();
        $this->workUntil($job, StepCode::CrossLine);
        $this->practice('brightmere', null);
        self::assertSame('file', HeldPackage::query()->findOrFail($file)->source);
        $this->attestAll($job);
        $this->typeSerial($job->refresh());
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame('8.7.0', $this->device()['version']);
        $this->handOver($job);
    }
}
