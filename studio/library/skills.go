package library

import (
	"context"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/studio"
)

// A SkillsView is the skill graph and the numbers that are ours.
type SkillsView struct {
	Skills  []skill.Skill      `json:"skills"`
	Own     []string           `json:"own" doc:"ids of those that the studio added"`
	Numbers []judgement.Number `json:"numbers"`
}

// Skills shows what every plan rests on.
func Skills(ctx context.Context, a *studio.App, who studio.Who) (SkillsView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return SkillsView{}, err
	}
	v := SkillsView{r.Graph.Sorted(), []string{}, judgement.All()}
	for _, s := range r.Row.Skills {
		v.Own = append(v.Own, s.ID)
	}
	return v, nil
}

// mostSkills is how many skills a studio may add.
const mostSkills = 300

// SaveSkill keeps a skill of the studio's own, new or changed.
func SaveSkill(ctx context.Context, a *studio.App, who studio.Who, id string, c studio.Change[skill.Skill]) error {
	if _, program := studio.Catalogue[id]; program || id == "" {
		return studio.Refuse("That skill comes with the program; save yours under another name.")
	}
	c.Now.ID = id
	return a.Edit(ctx, who, func(r studio.Room) error {
		return studio.Failed(r.ChangeOwn(ctx, func(_ *[]instrument.Profile, own *[]skill.Skill) error {
			in, err := c.Onto(studio.Find(*own, func(s skill.Skill) bool { return s.ID == id }))
			if err != nil {
				return err
			}
			in.Name = strings.TrimSpace(in.Name)
			if err := r.In.Skills("").With(*own).Check(in); err != nil {
				return studio.Refuse("The skill cannot be kept: %v.", err)
			}
			return put(own, in, func(s skill.Skill) bool { return s.ID == id }, mostSkills, "skills")
		}), "studio")
	})
}

// DropSkill takes a skill of the studio's own away, if nothing names it.
func DropSkill(ctx context.Context, a *studio.App, who studio.Who, id string, seen *skill.Skill) error {
	if _, program := studio.Catalogue[id]; program {
		return studio.Refuse("That skill comes with the program.")
	}
	return editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) error {
		if err := studio.Unseen(seen, studio.Find(r.Row.Skills, func(s skill.Skill) bool { return s.ID == id })); err != nil {
			return err
		}
		for _, s := range r.Graph.Sorted() {
			if slices.Contains(s.RestsOn, id) {
				return studio.Refuse("%q rests on it.", s.Name)
			}
		}
		for _, it := range items {
			if slices.Contains(it.Skills(), id) {
				return studio.Refuse("%q names it; take it off there first.", it.Title)
			}
		}
		return studio.Failed(r.ChangeOwn(ctx, func(_ *[]instrument.Profile, own *[]skill.Skill) error {
			*own = slices.DeleteFunc(*own, func(s skill.Skill) bool { return s.ID == id })
			return nil
		}), "studio")
	})
}
