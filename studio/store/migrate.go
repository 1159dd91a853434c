package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"capstan/core/words"
	"capstan/studio/aside"

	"github.com/go-gormigrate/gormigrate/v2"
	"gorm.io/gorm"
)

// migrations are the numbered steps of the database, oldest first. A step that has shipped is never changed.
var migrations = []*gormigrate.Migration{
	{ID: "0001", Migrate: func(tx *gorm.DB) error {
		return tx.AutoMigrate(&Project{}, &Change{}, &Snapshot{}, &Export{})
	}},
	{ID: "0002", Migrate: func(tx *gorm.DB) error { // the bin
		if tx.Migrator().HasColumn(&Project{}, "BinnedAt") {
			return nil // made with it
		}
		return tx.Migrator().AddColumn(&Project{}, "BinnedAt")
	}},
	{ID: "0003", Migrate: func(tx *gorm.DB) error { // stills
		if tx.Migrator().HasColumn(&Export{}, "At") {
			return nil
		}
		return tx.Migrator().AddColumn(&Export{}, "At")
	}},
	{ID: "0004", Migrate: func(tx *gorm.DB) error { // stages, and which media are used
		return errors.Join(tx.AutoMigrate(&Stage{}, &MediaUse{}), countUses(tx))
	}},
	{ID: "0005", Migrate: func(tx *gorm.DB) error { // how long GIFs rest
		if tx.Migrator().HasColumn(&Export{}, "EndPause") {
			return nil
		}
		return tx.Migrator().AddColumn(&Export{}, "EndPause")
	}},
	{ID: "0006", Migrate: func(tx *gorm.DB) error { // how often an export was begun again
		if tx.Migrator().HasColumn(&Export{}, "Tries") {
			return nil
		}
		return tx.Migrator().AddColumn(&Export{}, "Tries")
	}},
	{ID: "0007", Migrate: func(tx *gorm.DB) error { return tx.AutoMigrate(&Mark{}) }}, // which media belong to it
	{ID: "0008", Migrate: func(tx *gorm.DB) error { // how patches are written
		if tx.Migrator().HasColumn(&Change{}, "Format") {
			return nil
		}
		return tx.Migrator().AddColumn(&Change{}, "Format")
	}},
	{ID: "0009", Migrate: func(tx *gorm.DB) error { // which film of the project
		if tx.Migrator().HasColumn(&Export{}, "Film") {
			return nil
		}
		return tx.Migrator().AddColumn(&Export{}, "Film")
	}},
	{ID: "0010", Migrate: func(tx *gorm.DB) error { // what was asked for, and the order of exports
		for _, column := range []string{"Settings", "Turn"} {
			if tx.Migrator().HasColumn(&Export{}, column) {
				continue
			}
			if err := tx.Migrator().AddColumn(&Export{}, column); err != nil {
				return err
			}
		}
		return tx.Exec("UPDATE exports SET turn = 0 WHERE turn IS NULL").Error
	}},
	{ID: "0011", Migrate: func(tx *gorm.DB) error { return tx.AutoMigrate(&Preset{}) }}, // presets of people's own
	{ID: "0012", Migrate: func(tx *gorm.DB) error { // how long a file lasts
		if tx.Migrator().HasColumn(&Export{}, "Length") {
			return nil
		}
		if err := tx.Migrator().AddColumn(&Export{}, "Length"); err != nil {
			return err
		}
		return tx.Exec("UPDATE exports SET length = 0 WHERE length IS NULL").Error
	}},
}

// migrate brings the database up to date. Where a step is due on a database that has been used, the file is copied first.
func migrate(db *gorm.DB, file string) error {
	var done int64
	if db.Migrator().HasTable("migrations") {
		if err := db.Table("migrations").Where("id <> ?", "SCHEMA_INIT").Count(&done).Error; err != nil {
			return err
		}
	}
	if int(done) > len(migrations) {
		return words.New("data.newer", filepath.Dir(file))
	}
	if done > 0 && int(done) < len(migrations) {
		if err := db.Exec("PRAGMA wal_checkpoint(TRUNCATE)").Error; err != nil {
			return err
		}
		raw, err := os.ReadFile(file)
		if err != nil {
			return err
		}
		if err := aside.Write(fmt.Sprintf("%s.before-%04d", file, done+1), raw, 0o600); err != nil {
			return err
		}
	}
	if err := gormigrate.New(db, gormigrate.DefaultOptions, migrations).Migrate(); err != nil {
		return fmt.Errorf("the database cannot be brought up to date: %w", err)
	}
	return nil
}
