// Package parallel runs work side by side. A panic in a goroutine ends the
// whole process unless that goroutine recovers it; here it is brought back to
// whoever waits for the work, so that what breaks costs its own result and
// nothing else.
package parallel

import (
	"fmt"
	"runtime"
	"strings"
	"sync"
)

// Broken is a panic that was recovered: what it said, and the place in
// Jantel's own code that it came from.
type Broken struct {
	Value any
	Place string // "core/syntax/tree.go:12", "" when it is in no code of ours
}

func (b *Broken) Error() string {
	if b.Place == "" {
		return fmt.Sprintf("it broke off: %v", b.Value)
	}
	return fmt.Sprintf("it broke off: %v (%s)", b.Value, b.Place)
}

// Try runs fn and returns the panic that ended it, or nil.
func Try(fn func()) (broken *Broken) {
	defer func() {
		if v := recover(); v != nil {
			broken = asBroken(v)
		}
	}()
	fn()
	return nil
}

// asBroken must be called by the deferred function that recovers.
func asBroken(v any) *Broken {
	if b, ok := v.(*Broken); ok {
		return b // it has been brought along from another goroutine
	}
	var callers [64]uintptr
	frames := runtime.CallersFrames(callers[:runtime.Callers(3, callers[:])])
	for {
		f, more := frames.Next()
		if name, ok := strings.CutPrefix(f.Function, "jantel/"); ok && !strings.HasPrefix(name, "core/parallel.") {
			return &Broken{v, fmt.Sprintf("%s:%d", f.File[strings.LastIndex(f.File[:strings.LastIndexByte(f.File, '/')], "/")+1:], f.Line)}
		}
		if !more {
			return &Broken{v, ""}
		}
	}
}

// Group is several pieces of work that somebody waits for. The zero value is
// ready.
type Group struct {
	wg     sync.WaitGroup
	mu     sync.Mutex
	broken *Broken
}

// Go starts a piece of work.
func (g *Group) Go(fn func()) {
	g.wg.Go(func() {
		if b := Try(fn); b != nil {
			g.mu.Lock()
			defer g.mu.Unlock()
			if g.broken == nil {
				g.broken = b
			}
		}
	})
}

// Wait waits for all of them, and panics with what the first of them that
// broke panicked with.
func (g *Group) Wait() {
	g.wg.Wait()
	if g.broken != nil {
		panic(g.broken)
	}
}

// Ranges parts the numbers below n among as many goroutines as there are
// cores, and waits for them as Group does.
func Ranges(n int, fn func(from, to int)) {
	workers := min(runtime.GOMAXPROCS(0), n)
	var g Group
	for w := range workers {
		g.Go(func() { fn(w*n/workers, (w+1)*n/workers) })
	}
	g.Wait()
}

// Each calls fn for each number below n, as Ranges does.
func Each(n int, fn func(i int)) {
	Ranges(n, func(from, to int) {
		for i := from; i < to; i++ {
			fn(i)
		}
	})
}
