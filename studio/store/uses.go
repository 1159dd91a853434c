package store

import (
	"regexp"

	"capstan/core/doc"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// MediaUse says that a project has used a media file. Undo, stages and exports may need the file again, so a use lasts as long
// as its project, the bin included.
type MediaUse struct {
	ProjectID string `gorm:"primaryKey"`
	Hash      string `gorm:"primaryKey;index"`
}

// use notes which media a document has, in the transaction that stores it.
func use(tx *gorm.DB, project string, media map[string]*doc.Media) error {
	list := make([]MediaUse, 0, len(media))
	for hash := range media {
		list = append(list, MediaUse{project, hash})
	}
	if len(list) == 0 {
		return nil
	}
	return tx.Clauses(clause.OnConflict{DoNothing: true}).CreateInBatches(list, 200).Error
}

// Uses counts by how many projects each media file is used.
func (s *Store) Uses() (map[string]int, error) {
	var rows []struct {
		Hash string
		N    int
	}
	err := s.db.Model(&MediaUse{}).Select("hash, count(*) as n").Group("hash").Scan(&rows).Error
	uses := make(map[string]int, len(rows))
	for _, r := range rows {
		uses[r.Hash] = r.N
	}
	return uses, err
}

var hashInside = regexp.MustCompile(`"[0-9a-f]{64}"`)

// countUses finds the media of projects that were stored before uses were counted: every hash in a snapshot or in a command.
func countUses(tx *gorm.DB) error {
	for _, from := range []struct{ table, column string }{{"snapshots", "document"}, {"changes", "command"}} {
		rows, err := tx.Table(from.table).Select("project_id, " + from.column).Rows()
		if err != nil {
			return err
		}
		found := map[MediaUse]bool{}
		for rows.Next() {
			var project string
			var text []byte
			if err := rows.Scan(&project, &text); err != nil {
				rows.Close()
				return err
			}
			for _, h := range hashInside.FindAll(text, -1) {
				found[MediaUse{project, string(h[1 : len(h)-1])}] = true
			}
		}
		if err := rows.Close(); err != nil {
			return err
		}
		for u := range found {
			if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&u).Error; err != nil {
				return err
			}
		}
	}
	return nil
}
