package store

import (
	"errors"
	"os"
	"path/filepath"
)

// aside is how files are named while they are written: renamed when they are whole.
const aside = ".aside-*"

// clearLeftovers removes files that a kill left half written. The folder is locked, so nobody else is writing them.
func clearLeftovers(dir string) error {
	var all error
	for _, d := range []string{dir, filepath.Join(dir, "media"), filepath.Join(dir, "exports")} {
		found, err := filepath.Glob(filepath.Join(d, aside))
		all = errors.Join(all, err)
		for _, f := range found {
			all = errors.Join(all, os.Remove(f))
		}
	}
	return all
}
