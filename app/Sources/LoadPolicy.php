<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordLoad;
use App\Models\RecordSet;
use App\Models\User;
use Illuminate\Auth\Access\Response;

/** A load is handled by those who bring in records of its set. */
final readonly class LoadPolicy
{
    public function __construct(private SourcePolicy $sets) {}

    public function handle(User $user, RecordLoad $load): Response
    {
        return $this->sets->load($user, RecordSet::query()->findOrFail($load->record_set_id));
    }
}
