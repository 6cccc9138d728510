package main

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"runtime"
)

// dataDir is where this system keeps a player's data of a name.
func dataDir(name string) (string, error) {
	home, err := os.UserHomeDir()
	if err != nil {
		home = ""
	}
	dir, err := dataDirOn(runtime.GOOS, name, home, os.Getenv)
	if err != nil {
		return "", fmt.Errorf("no place for the data is known; name one with --data: %w", err)
	}
	return dir, nil
}

var errNoHome = errors.New("there is no home directory")

// dataDirOn is the same on any system: %LocalAppData% on Windows, Library/Application Support on
// macOS, elsewhere by the XDG base directory rules.
func dataDirOn(system, name, home string, env func(string) string) (string, error) {
	switch local := env("LocalAppData"); {
	case system == "windows" && local != "":
		return local + `\` + name, nil
	case system == "windows" && home != "":
		return home + `\AppData\Local\` + name, nil
	case home != "" && system == "darwin":
		return filepath.Join(home, "Library", "Application Support", name), nil
	case system != "windows" && system != "darwin" && filepath.IsAbs(env("XDG_DATA_HOME")):
		return filepath.Join(env("XDG_DATA_HOME"), name), nil
	case home != "" && system != "windows":
		return filepath.Join(home, ".local", "share", name), nil
	}
	return "", errNoHome
}

// opener is the command by which a system opens an address in the player's browser.
func opener(system, address string) []string {
	switch system {
	case "windows":
		return []string{"rundll32", "url.dll,FileProtocolHandler", address}
	case "darwin":
		return []string{"open", address}
	}
	return []string{"xdg-open", address}
}
