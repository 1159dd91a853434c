package media

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"capstan/core/doc"
)

// InBin is how long a file stays in the bin.
const InBin = 30 * 24 * time.Hour

func (f *Folder) bin() string { return filepath.Join(f.dir, "bin") }

// Sweep puts files that keep does not know into the bin, and returns how many. What was derived from them is removed, since it can be derived
// again. Those taken in after before stay: a picture comes in before the command that uses it. A file in the bin comes back as soon as it is asked
// for, and is deleted when it has been there for InBin, or when Empty needs its room.
func (f *Folder) Sweep(keep func(hash string) bool, before time.Time) (binned int, err error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	entries, err := os.ReadDir(f.dir)
	if err != nil {
		return 0, err
	}
	seen := map[string]bool{}
	for _, e := range entries {
		hash := strings.TrimSuffix(e.Name(), filepath.Ext(e.Name()))
		if base, mask := doc.Shown(hash); mask != "" && hashForm.MatchString(base) && hashForm.MatchString(mask) {
			if info, e := e.Info(); e == nil && info.ModTime().Before(before) {
				f.unlift(hash)
			}
			continue
		}
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
			if _, e := os.Stat(p); errors.Is(e, fs.ErrNotExist) {
				continue
			}
			now := time.Now()
			to := filepath.Join(f.bin(), hash+ext)
			if e := errors.Join(os.MkdirAll(f.bin(), 0o700), os.Rename(p, to), os.Chtimes(to, now, now)); e != nil {
				err = errors.Join(err, e)
				continue
			}
			binned++
		}
		err = errors.Join(err, os.RemoveAll(filepath.Join(f.dir, hash)))
		for k := 0; k < 17; k++ {
			f.forget(f.derived(hash, k))
		}
	}
	return binned, err
}

// Empty deletes what was put into the bin before a time, and more, that which has been there longest first, until need bytes are freed. It returns
// how many were.
func (f *Folder) Empty(before time.Time, need int64) (freed int64, err error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	entries, err := os.ReadDir(f.bin())
	if errors.Is(err, fs.ErrNotExist) {
		return 0, nil
	} else if err != nil {
		return 0, err
	}
	var infos []fs.FileInfo
	for _, e := range entries {
		if info, err := e.Info(); err == nil {
			infos = append(infos, info)
		}
	}
	slices.SortFunc(infos, func(a, b fs.FileInfo) int { return a.ModTime().Compare(b.ModTime()) })
	for _, info := range infos {
		if freed >= need && !info.ModTime().Before(before) {
			break
		}
		if e := os.Remove(filepath.Join(f.bin(), info.Name())); e != nil {
			err = errors.Join(err, e)
			continue
		}
		freed += info.Size()
	}
	return freed, err
}

// fromBin takes a file out of the bin again.
func (f *Folder) fromBin(hash string) (string, bool) {
	for _, ext := range extensions {
		p := filepath.Join(f.dir, hash+ext)
		if os.Rename(filepath.Join(f.bin(), hash+ext), p) == nil {
			now := time.Now()
			_ = os.Chtimes(p, now, now) // as if taken in anew; else it would be swept again before it is used
			return p, true
		}
	}
	return "", false
}

// taken is when a file was last taken in; the zero time for one that is not there.
func (f *Folder) taken(hash string) time.Time {
	for _, ext := range append(slices.Clone(extensions), "") { // or what was derived from it
		if info, err := os.Stat(filepath.Join(f.dir, hash+ext)); err == nil {
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
