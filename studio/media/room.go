package media

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"time"
)

// Sweep removes files that keep does not know, with what was derived from them, and returns how many bytes that freed. Those
// taken in after before stay: a picture comes in before the command that uses it.
func (f *Folder) Sweep(keep func(hash string) bool, before time.Time) (freed int64, err error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	entries, err := os.ReadDir(f.dir)
	if err != nil {
		return 0, err
	}
	seen := map[string]bool{}
	for _, e := range entries {
		hash := strings.TrimSuffix(e.Name(), filepath.Ext(e.Name()))
		if !hashForm.MatchString(hash) || seen[hash] || keep(hash) {
			continue
		}
		seen[hash] = true
		if f.taken(hash).After(before) {
			continue
		}
		// The original goes first: what is left of a hash without it is swept the next time.
		for _, ext := range extensions {
			p := filepath.Join(f.dir, hash+ext)
			n, e := Bytes(p)
			freed += n
			if e = errors.Join(e, os.Remove(p)); !errors.Is(e, fs.ErrNotExist) {
				err = errors.Join(err, e)
			}
		}
		n, e := Bytes(filepath.Join(f.dir, hash))
		freed += n
		err = errors.Join(err, e, os.RemoveAll(filepath.Join(f.dir, hash)))
		for k := 0; k < 17; k++ {
			delete(f.cache, f.derived(hash, k))
		}
	}
	return freed, err
}

// taken is when a file was last taken in; the zero time for one that is not there.
func (f *Folder) taken(hash string) time.Time {
	for _, name := range []string{hash + ".png", hash + ".jpg", hash + ".ttf", hash + ".otf", hash} {
		if info, err := os.Stat(filepath.Join(f.dir, name)); err == nil {
			return info.ModTime()
		}
	}
	return time.Time{}
}

// Bytes adds up the sizes of a file, or of all files in a folder; 0 for what is not there.
func Bytes(path string) (n int64, err error) {
	err = filepath.WalkDir(path, func(_ string, d fs.DirEntry, err error) error {
		if errors.Is(err, fs.ErrNotExist) {
			return nil // gone meanwhile
		} else if err != nil || d.IsDir() {
			return err
		}
		info, err := d.Info()
		if err == nil {
			n += info.Size()
		} else if errors.Is(err, fs.ErrNotExist) {
			err = nil
		}
		return err
	})
	return n, err
}
