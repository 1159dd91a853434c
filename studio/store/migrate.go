package store

import (
	"fmt"
	"os"

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
}

// migrate brings the database up to date. Where a step is due on a database that has been used, the file is copied first.
func migrate(db *gorm.DB, file string) error {
	var done int64
	if db.Migrator().HasTable("migrations") {
		if err := db.Table("migrations").Where("id <> ?", "SCHEMA_INIT").Count(&done).Error; err != nil {
			return err
		}
	}
	if done > 0 && int(done) < len(migrations) {
		if err := db.Exec("PRAGMA wal_checkpoint(TRUNCATE)").Error; err != nil {
			return err
		}
		raw, err := os.ReadFile(file)
		if err != nil {
			return err
		}
		if err := os.WriteFile(fmt.Sprintf("%s.before-%04d", file, done+1), raw, 0o644); err != nil {
			return err
		}
	}
	if err := gormigrate.New(db, gormigrate.DefaultOptions, migrations).Migrate(); err != nil {
		return fmt.Errorf("the database cannot be brought up to date: %w", err)
	}
	return nil
}
