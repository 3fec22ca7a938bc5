package worker

import (
	"os"
	"os/exec"
	"path/filepath"
	"syscall"

	"jantel/store"

	"github.com/landlock-lsm/go-landlock/landlock"
)

// belong makes a worker the head of a group, so that what it started can be
// ended with it, and ends it when the server does.
func belong(cmd *exec.Cmd) {
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGKILL}
	cmd.Cancel = func() error { return syscall.Kill(-cmd.Process.Pid, syscall.SIGTERM) }
}

// mostMemory is the most memory, in bytes, that a worker that ended had.
func mostMemory(cmd *exec.Cmd) int64 {
	if u, ok := cmd.ProcessState.SysUsage().(*syscall.Rusage); ok {
		return u.Maxrss << 10
	}
	return 0
}

// endAll ends what a worker left running.
func endAll(cmd *exec.Cmd) { _ = syscall.Kill(-cmd.Process.Pid, syscall.SIGKILL) }

// bound sets what the worker, and each program it starts, may take.
func bound(l Limits) error {
	set := func(which int, n uint64) error {
		if n == 0 {
			return nil
		}
		var now syscall.Rlimit
		if err := syscall.Getrlimit(which, &now); err != nil {
			return err
		}
		n = min(n, now.Max)
		return syscall.Setrlimit(which, &syscall.Rlimit{Cur: n, Max: n})
	}
	// Of memory what is written to counts; address space that Go sets aside
	// does not.
	if err := set(syscall.RLIMIT_DATA, uint64(l.Memory)); err != nil {
		return err
	}
	if err := set(syscall.RLIMIT_NOFILE, l.Files); err != nil {
		return err
	}
	// Time on all cores together; the clock is watched from outside.
	return set(syscall.RLIMIT_CPU, uint64(l.Time.Seconds()*4))
}

// confine lets the worker, and what it starts, see only the codebase, the
// store of facts, git and what git is linked with, and no network. Where the
// system offers less, less is set.
func confine(r Request, reads []string) error {
	rules := []landlock.Rule{
		landlock.RODirs("/usr", "/lib", "/lib64", "/bin", "/etc/alternatives").IgnoreIfMissing(),
		landlock.ROFiles(
			"/etc/ld.so.cache", "/etc/ld.so.preload", "/dev/urandom", "/dev/random", "/proc/self/maps",
			"/sys/kernel/mm/transparent_hugepage/hpage_pmd_size",
		).IgnoreIfMissing(),
		landlock.RWFiles("/dev/null").IgnoreIfMissing(),
		landlock.RWDirs(r.Scratch),
		landlock.RWFiles(store.FactsFiles(r.Data)...).IgnoreIfMissing(),
	}
	for _, p := range reads {
		if info, err := os.Stat(p); err == nil && info.IsDir() {
			rules = append(rules, landlock.RODirs(p))
		} else {
			rules = append(rules, landlock.ROFiles(p))
		}
	}
	if git, err := exec.LookPath("git"); err == nil {
		if real, err := filepath.EvalSymlinks(git); err == nil {
			rules = append(rules, landlock.RODirs(filepath.Dir(filepath.Dir(real))))
		}
	}
	return landlock.V7.BestEffort().Restrict(rules...)
}

func machineMemory() int64 {
	var info syscall.Sysinfo_t
	if syscall.Sysinfo(&info) != nil {
		return 0
	}
	return int64(info.Totalram) * int64(info.Unit)
}
