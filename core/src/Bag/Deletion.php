<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** May a bag be deleted? The rules that stand against it, each with what to do. */
final class Deletion
{
    /**
     * @param  bool  $lastOfOpenJob  whether it is the last verified bag of a device that has an open job
     * @return list<string> empty where it may be deleted
     */
    public static function against(
        bool $sealed,
        bool $writing,
        bool $lastOfOpenJob,
        bool $byLead,
        string $reason,
    ): array {
        return array_values(
            array_filter([
                $writing ? 'It is being written. Leave its job first.' : '',
                $lastOfOpenJob
                    ? 'It is the last verified bag of a device with an open job. End the job, or take another '
                        .'backup first.'
                    : '',
                $sealed && ! $byLead ? 'It is sealed: only a lead deletes a sealed copy.' : '',
                $sealed && trim($reason) === '' ? 'It is sealed: say why it is to be deleted.' : '',
            ]),
        );
    }
}
