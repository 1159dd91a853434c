// Package store keeps projects, their changes, media facts and exports in SQLite, and makes sure that what was
// acknowledged is what reopens.
package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"time"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/media"

	"github.com/glebarez/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// Project is a row of the list of projects.
type Project struct {
	ID        string    `gorm:"primaryKey" json:"id"`
	Name      string    `json:"name"`
	Width     int       `json:"width"`
	Height    int       `json:"height"`
	Length    int64     `json:"length"` // ms
	Revision  int64     `json:"revision"`
	CreatedAt time.Time `json:"createdAt"`
	UpdatedAt time.Time `json:"updatedAt"`
	// BinnedAt is when it was put into the bin; nil while it is not there.
	BinnedAt *time.Time `gorm:"index" json:"binnedAt,omitempty"`
}

// Change is one acknowledged command with the patch it made.
type Change struct {
	ProjectID string          `gorm:"primaryKey" json:"-"`
	Revision  int64           `gorm:"primaryKey;autoIncrement:false" json:"revision"`
	CommandID string          `gorm:"index" json:"id"` // made by the page; a repeated one is not carried out twice
	Window    string          `json:"window"`
	Command   json.RawMessage `json:"command"`
	Patch     json.RawMessage `json:"patch"`
	Format    int             `gorm:"default:1" json:"-"` // of the patch
	At        time.Time       `json:"at"`
}

// Snapshot is a whole document at a revision; newer changes are replayed on it.
type Snapshot struct {
	ProjectID string `gorm:"primaryKey"`
	Revision  int64  `gorm:"primaryKey;autoIncrement:false"`
	Document  []byte
}

// Export states.
const (
	Waiting   = "waiting"
	Running   = "running"
	Done      = "done"
	Failed    = "failed"
	Cancelled = "cancelled"
	Paused    = "paused" // before or while it is made
)

// Export is one file that is or was made of a project.
type Export struct {
	ID         string    `gorm:"primaryKey" json:"id"`
	ProjectID  string    `gorm:"index" json:"project"`
	Name       string    `json:"name"`           // file name for the download
	Film       string    `json:"film,omitempty"` // of the project; empty: its first
	Format     string    `json:"format"`
	Width      int       `json:"width"`
	Height     int       `json:"height"`
	RateNum    int64     `json:"rateNum"`
	RateDen    int64     `json:"rateDen"`
	Once       bool      `json:"-"`             // of exports before they had settings
	Settings   string    `json:"settings"`      // what was asked for, a delivery.Ask as JSON; empty in exports before they had any
	Left       int64     `gorm:"-" json:"left"` // ms it still takes, while it is made; 0: not known
	Turn       float64   `json:"-"`             // exports wait in the order of these
	EndPause   int64     `json:"endPause"`      // ms its last frame rests, of a GIF
	At         int64     `json:"at"`            // ms of the film, of a still
	State      string    `gorm:"index" json:"state"`
	Frames     int64     `json:"frames"`
	Length     int64     `json:"length"` // ms that the file lasts, without its rest; 0: not known, of exports before it was noted
	FramesDone int64     `json:"framesDone"`
	Bytes      int64     `json:"bytes"`
	Message    string    `json:"message"` // why it failed, in words
	Tries      int       `json:"-"`       // how often it was begun again since Capstan had stopped
	Document   []byte    `json:"-"`       // the project as it was when the export was asked for
	CreatedAt  time.Time `json:"createdAt"`
	EndedAt    time.Time `json:"endedAt"`
}

// Snapshots are written every so many revisions.
const snapshotEvery = 50

// keptSnapshots is how many snapshots before the newest are kept.
const keptSnapshots = 2

// Store is one data folder. It is safe for concurrent use; one process may have a folder open.
type Store struct {
	dir    string
	db     *gorm.DB
	lock   *os.File // nil where it is only read
	copied string   // where the database was copied to, to be read; empty where it is written
	assets frame.Assets
	files  *media.Folder

	writing sync.Mutex // SQLite lets those that wait sleep and try again, which is not fair; a mutex is
	mu      sync.Mutex
	open    map[string]*opened
}

// tx writes in one transaction, in turn.
func (s *Store) tx(f func(tx *gorm.DB) error) error {
	s.writing.Lock()
	defer s.writing.Unlock()
	return s.db.Transaction(f)
}

// intact checks the database before anything is read or changed.
func intact(db *gorm.DB, dir string) error {
	var found []string
	if err := db.Raw("PRAGMA quick_check(3)").Scan(&found).Error; err != nil {
		return words.New("data.damaged", dir, err)
	}
	if len(found) != 1 || found[0] != "ok" {
		return words.New("data.damaged", dir, strings.Join(found, "; "))
	}
	return nil
}

// ServedAt notes where this store's application answers, for who tries to open the folder a second time.
func (s *Store) ServedAt(url string) error {
	if s.lock == nil {
		return nil
	}
	words := fmt.Sprintf("process %d, %s", os.Getpid(), url)
	if err := s.lock.Truncate(0); err != nil {
		return err
	}
	_, err := s.lock.WriteAt([]byte(words), 0)
	return err
}

// Open opens or makes the data folder dir. assets are what commands are carried out with. Of its faults "data.in-use" says that
// another process has the folder, "data.damaged" that the database does not hold together.
func Open(dir string, assets frame.Assets) (*Store, error) {
	// The folder is its owner's alone.
	for _, d := range []string{dir, filepath.Join(dir, "media"), filepath.Join(dir, "exports"), filepath.Join(dir, "tmp")} {
		if err := os.MkdirAll(d, 0o700); err != nil {
			return nil, readOnly(fmt.Errorf("the data folder cannot be made: %w", err), dir)
		}
	}
	if err := os.Chmod(dir, 0o700); err != nil && !errors.Is(err, fs.ErrPermission) { // somebody else's, who decides
		return nil, readOnly(fmt.Errorf("the data folder cannot be kept from others: %w", err), dir)
	}
	lock, err := os.OpenFile(filepath.Join(dir, "lock"), os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return nil, readOnly(err, dir)
	}
	if err := syscall.Flock(int(lock.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		by, _ := os.ReadFile(lock.Name())
		lock.Close()
		return nil, words.New("data.in-use", dir, string(by))
	}
	if err := lock.Truncate(0); err != nil {
		return nil, err
	}
	if _, err := lock.WriteAt(fmt.Appendf(nil, "process %d", os.Getpid()), 0); err != nil {
		return nil, err
	}
	if err := errors.Join(aside.Clear(dir, filepath.Join(dir, "media"), filepath.Join(dir, "media", "*"), filepath.Join(dir, "exports")), aside.Emptied(filepath.Join(dir, "tmp"))); err != nil {
		return nil, fmt.Errorf("files that were left half written cannot be removed: %w", err)
	}
	// Made by SQLite it could be read by others.
	if f, err := os.OpenFile(filepath.Join(dir, "capstan.db"), os.O_RDWR|os.O_CREATE, 0o600); err != nil {
		return nil, errors.Join(readOnly(err, dir), lock.Close())
	} else if err := errors.Join(f.Chmod(0o600), f.Close()); err != nil {
		return nil, errors.Join(err, lock.Close())
	}
	db, err := database(dir)
	if err != nil {
		return nil, errors.Join(err, lock.Close())
	}
	if err := migrate(db, filepath.Join(dir, "capstan.db")); err != nil {
		return nil, errors.Join(err, lock.Close())
	}
	if err := together(db, dir); err != nil {
		return nil, errors.Join(err, lock.Close())
	}
	return &Store{dir: dir, db: db, lock: lock, assets: assets, files: media.NewFolder(filepath.Join(dir, "media")), open: map[string]*opened{}}, nil
}

// database opens the database in a folder and looks whether it holds together.
func database(dir string) (*gorm.DB, error) {
	db, err := gorm.Open(sqlite.Open("file:"+filepath.Join(dir, "capstan.db")+
		"?_txlock=immediate&_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=busy_timeout(5000)&_pragma=foreign_keys(1)&_pragma=auto_vacuum(2)"),
		&gorm.Config{Logger: logger.Default.LogMode(logger.Silent)})
	if err != nil {
		return nil, fmt.Errorf("the data in %s cannot be opened: %w", dir, err)
	}
	return db, intact(db, dir)
}

// Close releases the data folder.
func (s *Store) Close() error {
	sql, err := s.db.DB()
	if err == nil {
		err = sql.Close()
	}
	if s.lock != nil {
		err = errors.Join(err, s.lock.Close())
	}
	if s.copied != "" {
		err = errors.Join(err, os.RemoveAll(s.copied))
	}
	return err
}

// Temp makes a file for what is passed on or looked at; who made it removes it, and at the next start all that were left are.
func (s *Store) Temp() (*os.File, error) {
	if s.copied != "" {
		return os.CreateTemp(s.copied, "*")
	}
	return os.CreateTemp(filepath.Join(s.dir, "tmp"), "*")
}

// Dir returns the data folder.
func (s *Store) Dir() string { return s.dir }

// Files returns the media of this store.
func (s *Store) Files() *media.Folder { return s.files }

// Assets returns what the films of a project are compiled with: the fonts that ship, and its own.
func (s *Store) Assets(p *doc.Project) frame.Assets {
	return frame.Assets{Fonts: s.files.Fonts(p, s.assets.Fonts)}
}

// Projects lists all projects but those in the bin, the last changed first.
func (s *Store) Projects() ([]Project, error) {
	list := []Project{}
	return list, s.db.Where("binned_at IS NULL").Order("updated_at desc").Find(&list).Error
}

// Create adds a project with its first snapshot, at revision 0.
func (s *Store) Create(p *doc.Project) (*Project, error) {
	if err := p.Validate(); err != nil {
		return nil, err
	}
	raw, err := p.Write()
	if err != nil {
		return nil, err
	}
	row := &Project{ID: p.ID, CreatedAt: time.Now(), UpdatedAt: time.Now()}
	if _, err := s.describe(row, p, nil); err != nil {
		return nil, err
	}
	err = s.tx(func(tx *gorm.DB) error {
		if err := tx.Create(row).Error; err != nil {
			return err
		}
		return errors.Join(tx.Create(&Snapshot{p.ID, 0, raw}).Error, use(tx, p.ID, p.Media))
	})
	return row, err
}

// Delete removes a project in the bin with its changes, for good.
func (s *Store) Delete(id string) error {
	err := s.tx(func(tx *gorm.DB) error {
		r := tx.Delete(&Project{}, "id = ? AND binned_at IS NOT NULL", id)
		if r.Error == nil && r.RowsAffected == 0 {
			return words.New("project.empty-bin")
		}
		return errors.Join(r.Error, tx.Delete(&Snapshot{}, "project_id = ?", id).Error, tx.Delete(&Change{}, "project_id = ?", id).Error,
			tx.Delete(&Stage{}, "project_id = ?", id).Error, tx.Delete(&Preset{}, "project_id = ?", id).Error, tx.Delete(&MediaUse{}, "project_id = ?", id).Error)
	})
	if err == nil {
		s.close(id)
	}
	return err
}
