package main

import (
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"runtime"
	"strings"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"undaris/store"
)

// usualAddress is where a library is served that keeps no address yet.
const usualAddress = "127.0.0.1:4760"

// start is what undaris does without a word: it serves the player's library and opens it in the browser.
func start(cmd *cobra.Command) {
	var data string
	var noOpen bool
	cmd.Flags().StringVar(&data, "data", "", "directory of the database (default: the user's data directory)")
	cmd.Flags().BoolVar(&noOpen, "no-open", false, "leave the browser alone")
	cmd.Args = cobra.NoArgs
	cmd.RunE = func(cmd *cobra.Command, _ []string) (err error) {
		ctx, stop := signal.NotifyContext(cmd.Context(), os.Interrupt, syscall.SIGTERM)
		defer stop()
		if data == "" {
			if data, err = dataDir("undaris"); err != nil {
				return err
			}
		}
		show := func(address string) {
			if !noOpen {
				command := opener(runtime.GOOS, "http://"+address)
				_ = exec.Command(command[0], command[1:]...).Start() // the address was said
			}
		}
		kept := keptAddress(data)
		s, err := store.Open(data)
		var taken *store.TakenError
		if errors.As(err, &taken) && answers(kept) {
			fmt.Fprintf(cmd.OutOrStdout(), "Undaris is running already, at http://%s\n", kept)
			show(kept)
			return nil
		}
		if err != nil {
			return err
		}
		defer s.Close()
		listener, err := net.Listen("tcp", kept)
		was := "" // told to the page behind the address, where no server reads it
		if isTaken(err) {
			if listener, err = net.Listen("tcp", "127.0.0.1:0"); err == nil {
				was = "/#was=" + kept
				fmt.Fprintf(cmd.OutOrStdout(), "Another program is at %s, so Undaris takes another address from now on. What a browser had not saved yet waits at the one before, and is sent when Undaris is there again: write %s into %s\n", kept, kept, addressFile(data))
			}
		}
		if err != nil {
			return fmt.Errorf("cannot listen on %s: %w", kept, err)
		}
		address := listener.Addr().String()
		if err := os.WriteFile(addressFile(data), []byte(address+"\n"), 0o600); err != nil {
			return fmt.Errorf("the data directory %s cannot be written: %w", data, err)
		}
		show(address + was)
		return serving(ctx, cmd, s, listener, data, nil)
	}
}

func addressFile(data string) string { return filepath.Join(data, "address") }

// keptAddress is where a library was served last: another port would be another origin, and what
// waits in the browser would stay behind.
func keptAddress(data string) string {
	text, err := os.ReadFile(addressFile(data))
	address := strings.TrimSpace(string(text[:min(len(text), 100)]))
	if err != nil || loopback(address) != nil {
		return usualAddress
	}
	return address
}

// answers tells whether an Undaris is at an address.
func answers(address string) bool {
	resp, err := (&http.Client{Timeout: time.Second}).Get("http://" + address + "/api/players")
	if err != nil {
		return false
	}
	resp.Body.Close()
	return resp.Header.Get("Undaris-Database") != ""
}

// isTaken tells whether an address could not be had since another program has it.
func isTaken(err error) bool {
	const windows = syscall.Errno(10048) // WSAEADDRINUSE
	return errors.Is(err, syscall.EADDRINUSE) || errors.Is(err, windows)
}
