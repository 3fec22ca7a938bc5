//go:build !linux

package worker

import "os/exec"

// Other systems offer none of this in a way that is the same everywhere: there
// the worker is a process of its own and no more.

func belong(*exec.Cmd)                {}
func endAll(*exec.Cmd)                {}
func mostMemory(*exec.Cmd) int64      { return 0 }
func bound(Limits) error              { return nil }
func confine(Request, []string) error { return nil }
func machineMemory() int64            { return 0 }
