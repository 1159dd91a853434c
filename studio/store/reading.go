package store

import (
	"errors"
	"io"
	"io/fs"
	"os"
	"path/filepath"

	"capstan/core/frame"
	"capstan/core/words"
	"capstan/studio/media"
)

// OpenToRead opens a data folder that may not be written to: the database is copied aside, with what it has not yet taken over from its log, and
// brought up to date there. Whoever serves such a store refuses what would change it (ReadOnly).
func OpenToRead(dir string, assets frame.Assets) (*Store, error) {
	copied, err := os.MkdirTemp("", "capstan-reading-")
	if err != nil {
		return nil, err
	}
	s := &Store{dir: dir, copied: copied, assets: assets, files: media.NewFolder(filepath.Join(dir, "media")), open: map[string]*opened{}}
	for _, name := range []string{"capstan.db", "capstan.db-wal"} {
		err := copyFile(filepath.Join(dir, name), filepath.Join(copied, name))
		if errors.Is(err, fs.ErrNotExist) && name != "capstan.db" {
			continue
		}
		if err != nil {
			return nil, errors.Join(words.Because(err, "data.unread", dir), os.RemoveAll(copied))
		}
	}
	if s.db, err = database(copied); err == nil {
		err = migrate(s.db, filepath.Join(copied, "capstan.db"))
	}
	if err != nil {
		return nil, errors.Join(err, os.RemoveAll(copied))
	}
	return s, nil
}

func copyFile(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Close())
}

// ReadOnly reports whether the store is only read.
func (s *Store) ReadOnly() bool { return s.copied != "" }
