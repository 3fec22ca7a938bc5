// Command jantel maps a codebase, scores its structure and names, and keeps
// the review of it.
package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"os"
	"os/signal"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"time"

	"jantel/core/calls"
	"jantel/core/charter"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/section"
	"jantel/core/smells"
	"jantel/core/source"
	"jantel/core/survey"
	_ "jantel/core/syntax/languages" // all of them
	"jantel/demo"
	"jantel/report"
	"jantel/review"
	"jantel/server"
	"jantel/server/worker"
	"jantel/store"

	"github.com/spf13/cobra"
)

var version = "0.1.0"

func main() {
	if worker.IsWorker() {
		os.Exit(worker.Main())
	}
	survey.CollectLate()
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	context.AfterFunc(ctx, endSoon)
	root := &cobra.Command{
		Use: "jantel", Short: "Map a codebase, score its structure and names, record what to do about it",
		SilenceUsage: true, SilenceErrors: true, Version: version,
	}
	root.AddCommand(
		serveCommand(), demoCommand(), surveyCommand(), checkCommand(), rulesCommand(), backupCommand(),
		restoreCommand(), verifyCommand(), openapiCommand(),
	)
	if err := root.ExecuteContext(ctx); err != nil {
		var ex exit
		if errors.As(err, &ex) {
			if ex.err != nil {
				fmt.Fprintln(os.Stderr, "jantel: "+report.Plain(ex.err.Error()))
			}
			stop()
			os.Exit(ex.code)
		}
		fmt.Fprintln(os.Stderr, "jantel: "+report.Plain(err.Error()))
		stop()
		os.Exit(2)
	}
}

// endSoon ends the program when what it was doing does not: a reader may be in
// the middle of a text that was made to be slow.
func endSoon() {
	time.AfterFunc(8*time.Second, func() {
		fmt.Fprintln(os.Stderr, "jantel: stopped in the middle of its work")
		os.Exit(130)
	})
}

type exit struct {
	code int
	err  error
}

func (e exit) Error() string {
	if e.err == nil {
		return "breaches"
	}
	return e.err.Error()
}

func dataFolder(env, fallback string) string {
	if d := os.Getenv(env); d != "" {
		return filepath.Join(d, "jantel")
	}
	home, err := os.UserHomeDir()
	if err != nil {
		return filepath.Join(os.TempDir(), "jantel")
	}
	return filepath.Join(home, fallback, "jantel")
}

func logger(level string) *slog.Logger {
	var l slog.Level
	if l.UnmarshalText([]byte(level)) != nil {
		l = slog.LevelWarn
	}
	return slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: l}))
}

func serveCommand() *cobra.Command {
	var cfg server.Config
	var level string
	c := &cobra.Command{
		Use:   "serve",
		Short: "Start the server and print the address to open",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			cfg.Version, cfg.Log = version, logger(level)
			s, err := server.New(cmd.Context(), cfg)
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "Jantel is at %s\n", s.URL())
			if len(cfg.Allow) == 0 {
				fmt.Fprintln(cmd.OutOrStdout(), "No folder may be surveyed yet, only uploads: start with --allow DIR to change that.")
			}
			return s.Serve(cmd.Context())
		},
	}
	c.Flags().StringVar(&cfg.Addr, "addr", "127.0.0.1:7420", "address on loopback to listen on")
	c.Flags().StringVar(&cfg.Data, "data", dataFolder("XDG_DATA_HOME", ".local/share"), "folder in which the data is kept")
	c.Flags().StringArrayVar(&cfg.Allow, "allow", nil, "folder that may be surveyed, with all below it; may be repeated")
	c.Flags().StringVar(&level, "log", "warn", "what is logged to stderr: debug, info, warn, error")
	return c
}

func demoCommand() *cobra.Command {
	var cfg server.Config
	var level string
	c := &cobra.Command{
		Use:   "demo",
		Short: "Start the server with a made-up codebase and its review in it",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			cfg.Version, cfg.Log = version, logger(level)
			repo := filepath.Join(cfg.Data, "hollin-vault")
			if err := demo.Make(cmd.Context(), repo); err != nil {
				return err
			}
			cfg.Allow = append(cfg.Allow, repo)
			s, err := server.New(cmd.Context(), cfg)
			if err != nil {
				return err
			}
			ready := make(chan error, 1)
			ctx, cancel := context.WithCancel(cmd.Context())
			defer cancel()
			go func() { ready <- s.Serve(ctx) }()
			if err := demo.Fill(ctx, s, repo); err != nil {
				cancel()
				return errors.Join(fmt.Errorf("the demo can not be filled: %w", err), <-ready)
			}
			fmt.Fprintf(cmd.OutOrStdout(), "The demo is at %s\nStop it with Ctrl-C.\n", s.URL())
			return <-ready
		},
	}
	c.Flags().StringVar(&cfg.Addr, "addr", "127.0.0.1:7420", "address on loopback to listen on")
	c.Flags().StringVar(
		&cfg.Data, "data", filepath.Join(dataFolder("XDG_DATA_HOME", ".local/share"), "demo"),
		"folder in which the demo is kept",
	)
	c.Flags().StringArrayVar(&cfg.Allow, "allow", nil, "further folder that may be surveyed; may be repeated")
	c.Flags().StringVar(&level, "log", "warn", "what is logged to stderr: debug, info, warn, error")
	return c
}

type surveyFlags struct {
	rev, format, out, stage, charter, data string
	noCache                                bool
	with                                   []string
}

func surveyCommand() *cobra.Command {
	var f surveyFlags
	c := &cobra.Command{
		Use:   "survey PATH",
		Short: "Survey a folder, a Git repository or an archive without a server",
		Args:  exactPath,
		RunE: func(cmd *cobra.Command, args []string) error {
			return runSurvey(cmd, args[0], f)
		},
	}
	c.Flags().StringVar(&f.rev, "rev", "", "revision of a Git repository: a branch, a tag or a commit")
	c.Flags().StringVar(&f.format, "format", "text", "text, json, html, markdown, sarif or svg")
	c.Flags().StringVar(&f.out, "out", "", "file to write to instead of standard output")
	c.Flags().StringVar(
		&f.stage, "stage", "",
		"how strict to judge: sketch, growing or \"in service\"; of the recorded brief, or growing, when not given",
	)
	c.Flags().StringSliceVar(&f.with, "with", nil, "what the JSON holds besides: calls, the links between definitions")
	c.Flags().StringVar(&f.charter, "charter", "", "charter to hold against the code instead of its own jantel.yaml")
	c.Flags().BoolVar(&f.noCache, "no-cache", false, "read every file again")
	c.Flags().StringVar(
		&f.data, "data", dataFolder("XDG_DATA_HOME", ".local/share"),
		"the server's data folder, whose findings go into the HTML",
	)
	return c
}

func exactPath(_ *cobra.Command, args []string) error {
	if len(args) != 1 {
		return errors.New("give one path: a folder, a Git repository or an archive")
	}
	return nil
}

func runSurvey(cmd *cobra.Command, path string, f surveyFlags) (err error) {
	ctx := cmd.Context()
	switch f.format {
	case "text", "json", "html", "markdown", "sarif", "svg":
	default:
		return fmt.Errorf("there is no format %q; text, json, html, markdown, sarif and svg are written", f.format)
	}
	for _, w := range f.with {
		if w != "calls" {
			return fmt.Errorf("there is nothing called %q to add; --with knows calls", w)
		}
	}
	brief := model.Brief{Stage: model.Stage(f.stage)}
	if f.stage != "" && !brief.Stage.Valid() {
		return fmt.Errorf("the stage %q is none of sketch, growing, in service", f.stage)
	}
	s, abs, err := surveyed(cmd, path, f)
	if err != nil {
		return err
	}
	text, err := charterText(f.charter)
	if err != nil {
		return err
	}
	found, brief, quiet := recorded(ctx, f, abs, brief)
	// Calls follow from the facts alone: to judge anew does not ask for them again.
	began := time.Now()
	parallel.Try(func() { calls.Of(s) }) // what breaks is said by who asks for it
	s.Timings["calls"] = float64(time.Since(began).Milliseconds()) / 1000
	began = time.Now()
	j := judgement.JudgeBy(s, judgement.Inputs{Brief: brief, Quiet: quiet, Charter: text})
	s.Timings["judge"] = float64(time.Since(began).Milliseconds()) / 1000
	for _, e := range j.Faults {
		fmt.Fprintln(os.Stderr, "jantel: surveying without the charter, which can not be read: "+report.Plain(e.Error()))
	}
	return write(cmd, f, s, j, found)
}

// surveyed makes the survey that a command asks for; abs is where it was read.
func surveyed(cmd *cobra.Command, path string, f surveyFlags) (s *model.Survey, abs string, err error) {
	ctx := cmd.Context()
	src, err := source.Open(ctx, source.Request{Path: path, Revision: f.rev})
	if err != nil {
		return nil, "", errors.New(strings.TrimPrefix(err.Error(), source.ErrNotCodebase.Error()+": "))
	}
	defer func() { err = errors.Join(err, src.Close()) }()
	if abs, err = source.Resolve(path, nil); err != nil {
		return nil, "", err
	}
	o := survey.Options{Name: strings.TrimSuffix(filepath.Base(abs), ".git"), Root: filepath.Base(abs), Key: src.Origin().Kind + ":" + abs}
	o.Listed = survey.Bound
	if !f.noCache && src.Origin().Kind != "archive" {
		// A cache that can not be used makes the survey slower, not wrong.
		if facts, e := store.OpenFacts(ctx, dataFolder("XDG_CACHE_HOME", ".cache")); e == nil {
			defer func() { err = errors.Join(err, facts.Close()) }()
			o.Cache = facts
		} else {
			fmt.Fprintln(os.Stderr, "jantel: surveying without a cache: "+report.Plain(e.Error()))
		}
	}
	if terminal(os.Stderr) {
		o.Progress = func(p survey.Progress) {
			if p.Total > 0 {
				fmt.Fprintf(os.Stderr, "\r\x1b[K%s: %d of %d files, %d lines", p.Step, p.Done, p.Total, p.Lines)
			} else {
				fmt.Fprintf(os.Stderr, "\r\x1b[K%s", p.Step)
			}
		}
		defer fmt.Fprint(os.Stderr, "\r\x1b[K")
	}
	if s, err = survey.Run(ctx, src, o); err != nil {
		return nil, "", errors.New(strings.TrimPrefix(err.Error(), source.ErrNotCodebase.Error()+": "))
	}
	return s, abs, nil
}

// recorded takes the findings, the brief and the silenced smells of this
// codebase from the server's data, where there are any.
func recorded(ctx context.Context, f surveyFlags, abs string, b model.Brief) ([]review.Finding, model.Brief, judgement.Silenced) {
	if _, err := os.Stat(filepath.Join(f.data, "review.db")); err != nil || f.format != "html" {
		return nil, b, nil
	}
	rv, err := store.OpenReview(ctx, f.data)
	if err != nil {
		fmt.Fprintln(os.Stderr, "jantel: without the recorded findings: "+report.Plain(err.Error()))
		return nil, b, nil
	}
	defer func() { _ = rv.Close() }()
	all, err := rv.Codebases(ctx)
	if err != nil {
		return nil, b, nil
	}
	for _, c := range all {
		if c.Path != abs || c.Revision != f.rev {
			continue
		}
		found, err := rv.Findings(ctx, c.ID)
		if err != nil {
			return nil, b, nil
		}
		if saved, v, err := rv.Brief(ctx, c.ID); err == nil && v > 0 && b.Stage == "" {
			b = saved
		}
		quiet, _ := rv.Silences(ctx, c.ID)
		return found, b, quiet
	}
	return nil, b, nil
}

func terminal(f *os.File) bool {
	info, err := f.Stat()
	return err == nil && info.Mode()&os.ModeCharDevice != 0 && os.Getenv("TERM") != "" && os.Getenv("TERM") != "dumb"
}

func write(cmd *cobra.Command, f surveyFlags, s *model.Survey, j *judgement.Result, found []review.Finding) error {
	if f.out == "" {
		return writeTo(cmd.OutOrStdout(), f, s, j, found)
	}
	return intoFile(f.out, func(w io.Writer) error { return writeTo(w, f, s, j, found) })
}

func writeTo(w io.Writer, f surveyFlags, s *model.Survey, j *judgement.Result, found []review.Finding) error {
	switch f.format {
	case "json":
		return report.JSON(w, s, j, report.Extras{Calls: slices.Contains(f.with, "calls"), Version: version})
	case "html":
		return report.HTML(w, s, j, found)
	case "markdown":
		return report.Markdown(w, s, j)
	case "sarif":
		return report.SARIF(w, s, j)
	case "svg":
		cut := section.Of(s, j, ".")
		if len(cut.Parts) == 0 {
			return errors.New("there is no own program text to draw; --format json says what was found")
		}
		return report.Section(w, cut, s.Codebase, report.Source(s))
	}
	return report.Text(w, s, j)
}

func checkCommand() *cobra.Command {
	var f surveyFlags
	c := &cobra.Command{
		Use:   "check PATH",
		Short: "Hold a codebase against its charter: exit 0 without breach, 1 with breaches, 2 when it could not run",
		Args:  exactPath,
		RunE: func(cmd *cobra.Command, args []string) error {
			breaches, err := runCheck(cmd, args[0], f)
			if err != nil {
				return exit{2, err}
			}
			if breaches > 0 {
				return exit{1, nil}
			}
			return nil
		},
	}
	c.Flags().StringVar(&f.charter, "charter", "", "charter to check against instead of the codebase's own jantel.yaml")
	c.Flags().StringVar(&f.rev, "rev", "", "revision of a Git repository")
	c.Flags().StringVar(&f.format, "format", "text", "text, json or sarif")
	c.Flags().BoolVar(&f.noCache, "no-cache", false, "read every file again")
	return c
}

func runCheck(cmd *cobra.Command, path string, f surveyFlags) (int, error) {
	switch f.format {
	case "text", "json", "sarif":
	default:
		return 0, fmt.Errorf("there is no format %q; breaches are written as text, json and sarif", f.format)
	}
	s, _, err := surveyed(cmd, path, f)
	if err != nil {
		return 0, err
	}
	text, err := charterText(f.charter)
	if err != nil {
		return 0, err
	}
	j := judgement.JudgeBy(s, judgement.Inputs{Charter: text, Today: time.Now()})
	if len(j.Faults) > 0 {
		return 0, fmt.Errorf("the charter can not be read: %w", j.Faults[0])
	}
	if j.Conformance == nil {
		return 0, fmt.Errorf("there is no charter: put a %s at the top of the codebase, or name one with --charter", charter.FileName)
	}
	w := cmd.OutOrStdout()
	switch f.format {
	case "json":
		err = report.BreachesJSON(w, j.Conformance)
	case "sarif":
		err = report.BreachesSARIF(w, j.Conformance)
	default:
		err = report.BreachesText(w, j.Conformance)
	}
	return len(j.Conformance.Breaches) + len(j.Conformance.Wiring), err
}

// charterText reads the charter a flag names, "" for none.
func charterText(file string) (string, error) {
	if file == "" {
		return "", nil
	}
	b, err := os.ReadFile(file)
	if err != nil {
		return "", fmt.Errorf("the charter can not be read: %w", err)
	}
	if len(b) == 0 {
		return "", fmt.Errorf("the charter %s is empty", file)
	}
	return string(b), nil
}

func rulesCommand() *cobra.Command {
	var format string
	c := &cobra.Command{
		Use:   "rules",
		Short: "List the rules that are checked",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			switch format {
			case "json":
				return report.RulesJSON(cmd.OutOrStdout(), smells.Rules())
			case "text":
				for _, r := range smells.Rules() {
					fmt.Fprintf(cmd.OutOrStdout(), "%-22s %-10s %s\n", r.Slug, r.Facet, r.Question)
				}
				return nil
			}
			return fmt.Errorf("there is no format %q; rules are written as text or json", format)
		},
	}
	c.Flags().StringVar(&format, "format", "text", "text or json")
	return c
}

func openapiCommand() *cobra.Command {
	return &cobra.Command{
		Use:    "openapi",
		Short:  "Print the description of the API",
		Hidden: true,
		Args:   cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			text, err := server.OpenAPI()
			if err != nil {
				return err
			}
			_, err = fmt.Fprintln(cmd.OutOrStdout(), string(text))
			return err
		},
	}
}
