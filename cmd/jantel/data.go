package main

import (
	"fmt"

	"jantel/report"
	"jantel/store"

	"github.com/spf13/cobra"
)

// dataFlag adds the flag that names the server's data folder.
func dataFlag(c *cobra.Command, into *string) {
	c.Flags().StringVar(into, "data", dataFolder("XDG_DATA_HOME", ".local/share"), "folder in which the server keeps its data")
}

func backupCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use:   "backup FILE",
		Short: "Write a backup of what people recorded, of a running server too",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if err := store.Backup(cmd.Context(), data, args[0], version); err != nil {
				return err
			}
			_, err := fmt.Fprintf(cmd.OutOrStdout(), "Backed up %s to %s.\n", report.Plain(data), report.Plain(args[0]))
			return err
		},
	}
	dataFlag(c, &data)
	return c
}

func restoreCommand() *cobra.Command {
	var data string
	var force bool
	c := &cobra.Command{
		Use:   "restore FILE",
		Short: "Bring a backup back, while no server runs on the folder",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			aside, err := store.Restore(cmd.Context(), data, args[0], force)
			if err != nil {
				return err
			}
			if aside != "" {
				_, _ = fmt.Fprintf(cmd.OutOrStdout(), "What was there before is kept in %s.\n", report.Plain(aside))
			}
			_, err = fmt.Fprintf(
				cmd.OutOrStdout(), "Restored %s to %s. Codebases are surveyed again when you ask for it.\n",
				report.Plain(args[0]), report.Plain(data),
			)
			return err
		},
	}
	dataFlag(c, &data)
	c.Flags().BoolVar(&force, "force", false, "replace the review that is there; it is kept beside")
	return c
}

func verifyCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use:   "verify",
		Short: "Look through the server's data for damage: exit 0 when it is sound, 1 when not",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			faults, err := store.Verify(cmd.Context(), data)
			if err != nil {
				return err
			}
			lost := false
			for _, f := range faults {
				what := "it is made anew when the server starts"
				if f.Precious {
					what, lost = "bring a backup back with `jantel restore`", true
				}
				if _, err := fmt.Fprintf(cmd.OutOrStdout(), "%s: %s; %s\n", report.Plain(f.File), report.Plain(f.Text), what); err != nil {
					return err
				}
			}
			if lost {
				return exit{1, nil}
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "What people recorded in %s is sound.\n", report.Plain(data))
			return err
		},
	}
	dataFlag(c, &data)
	return c
}
