package main

import (
	"fmt"
	"io"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"undaris/server"
	"undaris/store"
)

// backup makes the command that writes everything that is kept as one file.
func backup() *cobra.Command {
	var data string
	var recordings bool
	cmd := &cobra.Command{Use: "backup FILE", Short: "Write everything that is kept to a file (- is the standard output), also while Undaris runs", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) (err error) {
			if data == "" {
				if data, err = dataDir("undaris"); err != nil {
					return err
				}
			}
			if args[0] == "-" {
				return store.BackupOf(cmd.Context(), data, cmd.OutOrStdout(), recordings)
			}
			// It takes its name when it is whole.
			f, err := os.CreateTemp(filepath.Dir(args[0]), ".undaris-backup-")
			if err != nil {
				return fmt.Errorf("%s cannot be written: %w", args[0], err)
			}
			defer os.Remove(f.Name())
			defer f.Close()
			if err := store.BackupOf(cmd.Context(), data, f, recordings); err != nil {
				return err
			}
			if err := f.Sync(); err != nil {
				return fmt.Errorf("%s cannot be written: %w", args[0], err)
			}
			return os.Rename(f.Name(), args[0])
		}}
	cmd.Flags().StringVar(&data, "data", "", "directory of the database (default: the user's data directory)")
	cmd.Flags().BoolVar(&recordings, "recordings", false, "with the files of recordings, which are large")
	return cmd
}

// restore makes the command that puts a backup in place of everything that is kept.
func restore() *cobra.Command {
	var data string
	var empty bool
	cmd := &cobra.Command{Use: "restore FILE", Short: "Put a backup (- is the standard input) in place of everything that is kept; that is copied aside first", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) (err error) {
			if data == "" {
				if data, err = dataDir("undaris"); err != nil {
					return err
				}
			}
			var from io.Reader = cmd.InOrStdin()
			if args[0] != "-" {
				f, err := os.Open(args[0])
				if err != nil {
					return fmt.Errorf("%s cannot be read: %w", args[0], err)
				}
				defer f.Close()
				from = f
			}
			s, err := store.Open(data) // refused while an Undaris runs: there it is restored under Help
			if err != nil {
				return err
			}
			defer s.Close()
			done, err := s.Restore(cmd.Context(), from, store.Asked{Empty: empty, Legal: server.Legal})
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "Restored: %d things. What was there before is beside the database in %s\n", done.Rows, data)
			if done.Lost > 0 {
				fmt.Fprintf(cmd.OutOrStdout(), "Left out, since it cannot be used: %d\n", done.Lost)
			}
			for _, what := range done.Left {
				fmt.Fprintln(cmd.OutOrStdout(), " ", what)
			}
			return nil
		}}
	cmd.Flags().StringVar(&data, "data", "", "directory of the database (default: the user's data directory)")
	cmd.Flags().BoolVar(&empty, "empty", false, "restore also a backup that has nothing in it")
	return cmd
}
