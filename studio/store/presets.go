package store

import (
	"time"

	"gorm.io/gorm"
)

// Preset is what somebody asks for again and again, by a name of their own.
type Preset struct {
	ID        string    `gorm:"primaryKey" json:"id"`
	ProjectID string    `gorm:"index" json:"project"` // empty: for all projects
	Name      string    `json:"name"`
	Ask       string    `json:"-"` // a delivery.Ask as JSON
	CreatedAt time.Time `json:"createdAt"`
}

// Presets lists the presets of a project and those for all, by name.
func (s *Store) Presets(project string) (list []Preset, err error) {
	return list, s.db.Where("project_id IN ?", []string{"", project}).Order("name").Find(&list).Error
}

// SavePreset stores a preset; it takes the place of one of the same name and project.
func (s *Store) SavePreset(p *Preset) error {
	return s.tx(func(tx *gorm.DB) error {
		if err := tx.Where("project_id = ? AND name = ?", p.ProjectID, p.Name).Delete(&Preset{}).Error; err != nil {
			return err
		}
		return tx.Create(p).Error
	})
}

// DeletePreset removes a preset.
func (s *Store) DeletePreset(id string) error { return s.db.Delete(&Preset{}, "id = ?", id).Error }
