package studio

import (
	"context"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/skill"
)

// A SkillsView is the skill graph and the numbers that are ours.
type SkillsView struct {
	Skills  []skill.Skill      `json:"skills"`
	Own     []string           `json:"own" doc:"ids of those that the studio added"`
	Numbers []judgement.Number `json:"numbers"`
}

// Skills shows what every plan rests on.
func (a *App) Skills(ctx context.Context, who Who) (SkillsView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return SkillsView{}, err
	}
	v := SkillsView{r.graph.Sorted(), []string{}, judgement.All()}
	for _, s := range r.row.Skills {
		v.Own = append(v.Own, s.ID)
	}
	return v, nil
}

// mostSkills is how many skills a studio may add.
const mostSkills = 300

// SaveSkill keeps a skill of the studio's own, new or changed.
func (a *App) SaveSkill(ctx context.Context, who Who, in skill.Skill) error {
	in.Name = strings.TrimSpace(in.Name)
	if _, program := catalogue[in.ID]; program || in.ID == "" {
		return invalid("That skill comes with the program; save yours under another name.")
	}
	return told(a.store.In(who.Studio).ChangeOwn(ctx, func(_ *[]instrument.Profile, own *[]skill.Skill) error {
		if err := catalogue.With(*own).Check(in); err != nil {
			return invalid("The skill cannot be kept: %v.", err)
		}
		return put(own, in, func(s skill.Skill) bool { return s.ID == in.ID }, mostSkills, "skills")
	}), "studio")
}

// DropSkill takes a skill of the studio's own away, if nothing names it.
func (a *App) DropSkill(ctx context.Context, who Who, id string) error {
	r, items, err := a.shelved(ctx, who)
	if err != nil {
		return err
	}
	if _, program := catalogue[id]; program {
		return invalid("%q comes with the program.", catalogue.Name(id))
	}
	for _, s := range r.graph.Sorted() {
		if slices.Contains(s.RestsOn, id) {
			return invalid("%q rests on it.", s.Name)
		}
	}
	for _, it := range items {
		if slices.Contains(it.Skills(), id) {
			return invalid("%q names it; take it off there first.", it.Title)
		}
	}
	return told(a.store.In(who.Studio).ChangeOwn(ctx, func(_ *[]instrument.Profile, own *[]skill.Skill) error {
		*own = slices.DeleteFunc(*own, func(s skill.Skill) bool { return s.ID == id })
		return nil
	}), "studio")
}
