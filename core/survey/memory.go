package survey

import "runtime/debug"

// CollectLate sets how a process that surveys collects what it throws away: late,
// since a survey makes much and throws most of it away at once.
func CollectLate() { debug.SetGCPercent(200) }

// Bound lets the process take so much memory for a source of so many bytes, before
// it collects as often as it must. Near the bound to collect costs more than all
// else, so that it stands well above what the calls of a large source need at once.
func Bound(source int64) { debug.SetMemoryLimit(280<<20 + 3*source) }
