// Command profile surveys codebases as the command line does and writes where the
// time went, for the compiler: functions that are called most are laid out for it.
//
//	go run ./scripts/profile OUT FOLDER…
package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"runtime/pprof"

	"jantel/core/calls"
	"jantel/core/judgement"
	"jantel/core/source"
	"jantel/core/survey"
	_ "jantel/core/syntax/languages" // all that can be read
	"jantel/report"
)

func main() {
	if len(os.Args) < 3 {
		fmt.Fprintln(os.Stderr, "profile: name the file to write and the folders to survey")
		os.Exit(2)
	}
	if err := run(os.Args[1], os.Args[2:]); err != nil {
		fmt.Fprintln(os.Stderr, "profile: "+err.Error())
		os.Exit(1)
	}
}

func run(out string, folders []string) (err error) {
	survey.CollectLate()
	f, err := os.Create(out)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, f.Close()) }()
	if err := pprof.StartCPUProfile(f); err != nil {
		return err
	}
	defer pprof.StopCPUProfile()
	for _, folder := range folders {
		if err := once(folder); err != nil {
			return fmt.Errorf("%s: %w", folder, err)
		}
	}
	return nil
}

// once does all that a first survey does, the writing included.
func once(folder string) (err error) {
	src, err := source.Open(context.Background(), source.Request{Path: folder})
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, src.Close()) }()
	o := survey.Options{Name: "codebase", Root: "codebase", Key: "folder:" + folder, Listed: survey.Bound}
	s, err := survey.Run(context.Background(), src, o)
	if err != nil {
		return err
	}
	calls.Of(s)
	j := judgement.JudgeBy(s, judgement.Inputs{})
	return report.JSON(io.Discard, s, j, report.Extras{})
}
