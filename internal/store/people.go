package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"

	"epitrope/internal/people"
)

// PersonRow is somebody of a workshop, who may have left.
type PersonRow struct {
	ID         string `gorm:"primaryKey;default:gen_random_uuid()"`
	WorkshopID string
	Name       string
	SignIn     string
	Role       people.Role
	JoinedAt   time.Time `gorm:"default:now()"`
	LeftAt     *time.Time
}

// TableName is the people's table.
func (PersonRow) TableName() string { return "people" }

// Of is who it is.
func (p PersonRow) Of() people.Person {
	return people.Person{ID: p.ID, Workshop: p.WorkshopID, Name: p.Name, Role: p.Role}
}

// SignIn is where somebody is signed in, or was.
type SignIn struct {
	ID         string `gorm:"primaryKey;default:gen_random_uuid()"`
	WorkshopID string
	PersonID   string
	How        string
	Agent      string
	Shared     bool
	BeganAt    time.Time `gorm:"default:now()"`
	SeenAt     time.Time `gorm:"default:now()"`
	EndedAt    *time.Time
}

// TableName is the sign-ins' table.
func (SignIn) TableName() string { return "sign_ins" }

// ErrNobody is a person that there is not, or who has left.
var ErrNobody = errors.New("there is no such person")

// ErrLastOwner is a change that would leave a workshop without an owner.
var ErrLastOwner = errors.New("a workshop keeps one owner: make somebody else an owner first")

// People are all of the workshop, those who left last, by name.
func (s *Store) People(ctx context.Context) (list []PersonRow, err error) {
	err = s.own(ctx).Order("left_at IS NOT NULL, lower(name), joined_at").Find(&list).Error
	return list, named(err)
}

// Person is somebody of the workshop who has not left. It returns ErrNobody.
func (s *Store) Person(ctx context.Context, id string) (p PersonRow, err error) {
	return s.person(s.of(ctx), id)
}

func (s *Store) person(tx *gorm.DB, id string) (p PersonRow, err error) {
	err = s.mine(tx).Where("id = ? AND left_at IS NULL", id).Take(&p).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return p, ErrNobody
	}
	return p, named(err)
}

// SetRole gives somebody another role.
func (s *Store) SetRole(ctx context.Context, id string, role people.Role) error {
	return s.change(ctx, id, map[string]any{"role": role}, "role", func(p PersonRow) string {
		return fmt.Sprintf("%s: %s, was %s", p.Name,
			role, p.Role)
	})
}

// Leave lets somebody go: what they did stays under their name.
func (s *Store) Leave(ctx context.Context, id string) error {
	return s.change(ctx, id, map[string]any{"left_at": gorm.Expr("now()")}, "left", func(p PersonRow) string {
		return p.Name + ", " +
			string(p.Role)
	})
}

// change changes somebody, and notes it in the trail; there stays an owner.
func (s *Store) change(ctx context.Context, id string, to map[string]any, did string, what func(PersonRow) string) error {
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		var owners []PersonRow
		if err := tx.Raw("SELECT * FROM people WHERE workshop_id = ? AND role = 'owner' AND left_at IS NULL FOR UPDATE",
			s.workshop).Scan(&owners).Error; err != nil {
			return err
		}
		p, err := s.person(tx, id)
		if err != nil {
			return err
		}
		if p.Role == people.Owner && len(owners) == 1 {
			return ErrLastOwner
		}
		if err := s.mine(tx.Model(&PersonRow{})).Where("id = ?", id).Updates(to).Error; err != nil {
			return err
		}
		return s.note(tx, nil, did, what(p))
	}))
}

// SignIns are where somebody is signed in.
func (s *Store) SignIns(ctx context.Context, person string) (list []SignIn, err error) {
	err = s.own(ctx).Where("person_id = ? AND ended_at IS NULL", person).Order("seen_at DESC").Limit(50).Find(&list).Error
	return list, named(err)
}
