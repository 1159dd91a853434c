// Package aside writes files so that a kill leaves the old file or the new one, whole: beside their place first, then renamed.
package aside

import (
	"errors"
	"os"
	"path/filepath"
	"strings"
	"syscall"
)

// Pattern is how files are named while they are written, as os.CreateTemp takes it.
const Pattern = ".aside-*"

// Write writes a file with the given permissions, aside and synced, and renames it.
func Write(path string, data []byte, perm os.FileMode) error {
	tmp, err := os.CreateTemp(filepath.Dir(path), Pattern)
	if err != nil {
		return err
	}
	_, err = tmp.Write(data)
	err = errors.Join(err, tmp.Sync(), tmp.Close())
	if err == nil {
		err = os.Chmod(tmp.Name(), perm)
	}
	if err == nil {
		err = os.Rename(tmp.Name(), path)
	}
	if err != nil {
		os.Remove(tmp.Name())
	}
	return err
}

// Full tells whether err comes of a full disk, from the system or from SQLite.
func Full(err error) bool {
	return errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) || errors.Is(err, syscall.EFBIG) ||
		err != nil && strings.Contains(err.Error(), "database or disk is full")
}

// Emptied removes all files in a folder.
func Emptied(folder string) error {
	found, err := os.ReadDir(folder)
	for _, f := range found {
		err = errors.Join(err, os.RemoveAll(filepath.Join(folder, f.Name())))
	}
	return err
}

// Clear removes what a kill left half written in folders that nobody else writes to.
func Clear(folders ...string) error {
	var all error
	for _, d := range folders {
		found, err := filepath.Glob(filepath.Join(d, Pattern))
		all = errors.Join(all, err)
		for _, f := range found {
			all = errors.Join(all, os.Remove(f))
		}
	}
	return all
}
