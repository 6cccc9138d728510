// Command undaris maps chord tones over the fretboard, change by change.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"os/signal"
	"slices"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"undaris/life"
	"undaris/network"
	"undaris/server"
	"undaris/store"
	"undaris/web"
)

func main() {
	if err := root().Execute(); err != nil {
		fmt.Fprintln(os.Stderr, "undaris:", err)
		os.Exit(1)
	}
}

func root() *cobra.Command {
	cmd := &cobra.Command{Use: "undaris", Short: "Chord tones over the fretboard, change by change",
		Long:         "Undaris maps chord tones over the fretboard, change by change. Without a word after it, it serves your own library on\nthis machine and opens it in the browser; Ctrl+C ends it. Nothing leaves the machine.",
		SilenceUsage: true, SilenceErrors: true, Version: server.Version}
	cmd.SetVersionTemplate("undaris {{.Version}}\n")
	start(cmd)
	cmd.AddCommand(serve("serve", "Serve the application on this machine", "undaris", usualAddress, nil),
		serve("demo", "Serve it with the demo data, in a database of its own", "undaris-demo", "127.0.0.1:4761", life.All),
		backup(), restore(),
		&cobra.Command{Use: "version", Short: "Print the version", Args: cobra.NoArgs,
			Run: func(cmd *cobra.Command, _ []string) { fmt.Fprintln(cmd.OutOrStdout(), "undaris", server.Version) }},
		&cobra.Command{Use: "openapi", Short: "Print the description of the API", Args: cobra.NoArgs, Hidden: true,
			RunE: func(cmd *cobra.Command, _ []string) error { return printOpenAPI(cmd) }},
		&cobra.Command{Use: "facts", Short: "Print the core's numbers for the page", Args: cobra.NoArgs, Hidden: true,
			Run: func(cmd *cobra.Command, _ []string) { fmt.Fprint(cmd.OutOrStdout(), server.Facts()) }})
	return cmd
}

// serve makes a command that serves the data kept under name, each at an address of its own.
func serve(use, short, name, usual string, fill func(*store.Store) error) *cobra.Command {
	var addr, data string
	var outside []string
	cmd := &cobra.Command{Use: use, Short: short, Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			ctx, stop := signal.NotifyContext(cmd.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			if data == "" {
				var err error
				if data, err = dataDir(name); err != nil {
					return err
				}
			}
			return run(ctx, cmd, addr, data, outside, fill)
		}}
	cmd.Flags().StringVar(&addr, "addr", usual, "address to listen on; port 0 takes a free one")
	cmd.Flags().StringVar(&data, "data", "", "directory of the database (default: the user's data directory)")
	cmd.Flags().StringSliceVar(&outside, "network", nil, "let paired devices in, over TLS: at all private addresses of this machine, or at those named")
	cmd.Flags().Lookup("network").NoOptDefVal = everyPrivate
	return cmd
}

// everyPrivate stands for the flag without an address.
const everyPrivate = "private"

// grace is how long questions may go on after the program was told to end.
const grace = 400 * time.Millisecond

// run serves what a directory holds.
func run(ctx context.Context, cmd *cobra.Command, addr, data string, outside []string, fill func(*store.Store) error) error {
	if err := loopback(addr); err != nil {
		return err
	}
	s, err := store.Open(data)
	if err != nil {
		return err
	}
	defer s.Close()
	if fill != nil {
		if err := fill(s); err != nil {
			return fmt.Errorf("the demo data could not be written: %w", err)
		}
	}
	listener, err := net.Listen("tcp", addr)
	if isTaken(err) {
		return fmt.Errorf("another program is at %s already; name another address with --addr, such as 127.0.0.1:0 for any that is free", addr)
	}
	if err != nil {
		return fmt.Errorf("cannot listen on %s: %w", addr, err)
	}
	return serving(ctx, cmd, s, listener, data, outside)
}

// serving serves a library until the context ends, then finishes what is under way.
func serving(ctx context.Context, cmd *cobra.Command, s *store.Store, listener net.Listener, data string, outside []string) error {
	if _, err := fs.Stat(web.Files(), "index.html"); err != nil {
		fmt.Fprintln(cmd.ErrOrStderr(), "This build has no pages in it: make build puts them there. The API answers.")
	}
	breathe()
	log := slog.New(slog.NewJSONHandler(os.Stderr, nil))
	working, giveUp := context.WithCancel(context.Background())
	defer giveUp()
	others := network.New(data, s.Identity, log)
	defer others.Close()
	handler := server.On(others, s, web.Files(), log)
	srv := &http.Server{Handler: handler, BaseContext: func(net.Listener) context.Context { return working },
		ReadHeaderTimeout: 5 * time.Second, WriteTimeout: time.Minute, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 64 << 10}
	fmt.Fprintf(cmd.OutOrStdout(), "Undaris is at http://%s\nIts data is in %s\n", listener.Addr(), data)
	if cmd.Name() == "demo" {
		fmt.Fprintf(cmd.OutOrStdout(), "New here? Begin at http://%s/?ways=yes\n", listener.Addr())
	}
	if err := letIn(cmd, others, handler, outside); err != nil {
		return err
	}
	done := make(chan error, 1)
	go func() { done <- srv.Serve(listener) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	// What is under way may finish; questions that take longer are given up.
	ending, cancel := context.WithTimeout(context.Background(), grace)
	defer cancel()
	if srv.Shutdown(ending) != nil {
		giveUp()
		last, cancel := context.WithTimeout(context.Background(), grace)
		defer cancel()
		if srv.Shutdown(last) != nil {
			srv.Close()
		}
	}
	if err := <-done; !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}

// letIn opens the network where it was switched on, or is now, and says how to come in.
func letIn(cmd *cobra.Command, n *network.Network, handler http.Handler, outside []string) error {
	if err := n.Serve(handler); err != nil {
		return err
	}
	if outside == nil { // as it was switched on in the application, if it was
		fmt.Fprint(cmd.OutOrStdout(), n.Printed())
		return nil
	}
	if slices.Equal(outside, []string{everyPrivate}) {
		outside = []string{}
	}
	if err := n.On(outside, false); err != nil {
		return err
	}
	if err := n.Pair(); err != nil {
		return err
	}
	fmt.Fprint(cmd.OutOrStdout(), n.Printed())
	return nil
}

// loopback refuses addresses that other machines can reach: they come in by
// the network's own listener, over TLS and paired.
func loopback(addr string) error {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return fmt.Errorf("%q is no address to listen on; write one such as 127.0.0.1:4760", addr)
	}
	if ip := net.ParseIP(host); host == "localhost" || (ip != nil && ip.IsLoopback()) {
		return nil
	}
	return fmt.Errorf("%s can be reached from other machines; Undaris listens on 127.0.0.1 there, and lets devices in by --network", addr)
}

// printOpenAPI prints the API's document, indented, for the front end's types.
func printOpenAPI(cmd *cobra.Command) error {
	dir, err := os.MkdirTemp("", "undaris-openapi")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	s, err := store.Open(dir)
	if err != nil {
		return err
	}
	defer s.Close()
	answer := httptest.NewRecorder()
	server.New(s, web.Files(), slog.New(slog.DiscardHandler)).ServeHTTP(answer, httptest.NewRequest("GET", "http://localhost/api/openapi.json", nil))
	var document any
	if err := json.Unmarshal(answer.Body.Bytes(), &document); err != nil {
		return err
	}
	out := json.NewEncoder(cmd.OutOrStdout())
	out.SetIndent("", " ")
	return out.Encode(document)
}
