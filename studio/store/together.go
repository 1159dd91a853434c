package store

import (
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"syscall"

	"gorm.io/gorm"

	"capstan/core/words"
	"capstan/studio/aside"
)

// Mark says which database this is, and how often it has been opened. The folder of media keeps a copy of both: a database that is another
// one, or older than the media beside it, does not know all of them.
type Mark struct {
	ID     string `gorm:"primaryKey"`
	Opened int64
}

// markFile is where the folder of media keeps the mark.
const markFile = ".database"

// together sees to it that database and media belong together, and notes that both were opened.
func together(db *gorm.DB, dir string) error {
	var m Mark
	err := db.First(&m).Error
	fresh := errors.Is(err, gorm.ErrRecordNotFound)
	if err != nil && !fresh {
		return err
	}
	file := filepath.Join(dir, "media", markFile)
	var id string
	var opened int64
	raw, err := os.ReadFile(file)
	if err == nil {
		if _, err := fmt.Sscan(string(raw), &id, &opened); err != nil {
			return fmt.Errorf("%s cannot be read: %w", file, err)
		}
		switch {
		case fresh || id != m.ID:
			return words.New("data.other", dir)
		case opened > m.Opened:
			return words.New("data.older", dir)
		}
	} else if !errors.Is(err, fs.ErrNotExist) {
		return err
	} else if _, asked := os.Stat(filepath.Join(dir, "media", adopting)); fresh && asked != nil { // media of before there were marks belong to the database that has projects
		var n int64
		if err := db.Model(&Project{}).Count(&n).Error; err != nil {
			return err
		}
		if n == 0 && anyMedia(dir) {
			return words.New("data.other", dir)
		}
	}
	if err := mark(db, dir, m, fresh); err != nil {
		return err
	}
	if err := os.Remove(filepath.Join(dir, "media", adopting)); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return nil
}

func anyMedia(dir string) bool {
	entries, _ := os.ReadDir(filepath.Join(dir, "media"))
	for _, e := range entries {
		if name, _, _ := strings.Cut(e.Name(), "."); len(name) == 64 {
			return true
		}
	}
	return false
}

// mark notes in the database first: a kill in between leaves it ahead of the media, which is no fault.
func mark(db *gorm.DB, dir string, m Mark, fresh bool) error {
	if fresh {
		b := make([]byte, 8)
		if _, err := rand.Read(b); err != nil {
			return err
		}
		m.ID = hex.EncodeToString(b)
	}
	m.Opened++
	if err := db.Save(&m).Error; err != nil {
		return err
	}
	return aside.Write(filepath.Join(dir, "media", markFile), fmt.Appendf(nil, "%s %d\n", m.ID, m.Opened), 0o600)
}

// Adopt makes the database in dir the one of the media beside it, whatever it was before: what it does not know stays for the time being, and is
// put into the bin of media when it is tidied.
func Adopt(dir string) error {
	file := filepath.Join(dir, "media", markFile)
	if err := os.Rename(file, file+".before"); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return os.WriteFile(filepath.Join(dir, "media", adopting), nil, 0o600)
}

// adopting is there from Adopt until the next opening.
const adopting = ".adopting"

func readOnly(err error, dir string) error {
	if errors.Is(err, syscall.EROFS) || errors.Is(err, fs.ErrPermission) {
		return words.Because(err, "data.read-only", dir)
	}
	return err
}

// Shrink gives room that the database no longer needs back to the disk, a part at a time.
func (s *Store) Shrink() error {
	var mode int
	if err := s.db.Raw("PRAGMA auto_vacuum").Scan(&mode).Error; err != nil {
		return err
	}
	if mode == 2 {
		return s.db.Exec("PRAGMA incremental_vacuum(20000)").Error
	}
	var free, all int64
	if err := errors.Join(s.db.Raw("PRAGMA freelist_count").Scan(&free).Error, s.db.Raw("PRAGMA page_count").Scan(&all).Error); err != nil {
		return err
	}
	if free < 5000 || free < all/3 {
		return nil
	}
	return errors.Join(s.db.Exec("PRAGMA auto_vacuum = 2").Error, s.db.Exec("VACUUM").Error) // of before: once, whole
}
