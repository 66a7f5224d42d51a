package library

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"patientladder/core/activity"
	"patientladder/studio"
)

// An ActivitiesView is all games and studies that lessons draw on.
type ActivitiesView struct {
	Activities []activity.Activity `json:"activities" doc:"the studio's own first"`
	Aims       []Aim               `json:"aims" doc:"what an activity may be for, by name"`
}

// An Aim is what an activity is for.
type Aim struct {
	Key  string `json:"key"`
	Name string `json:"name"`
}

// Activities shows the bank and the studio's own.
func Activities(ctx context.Context, a *studio.App, who studio.Who) (ActivitiesView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return ActivitiesView{}, err
	}
	own, err := r.Activities(ctx)
	if err != nil {
		return ActivitiesView{}, studio.Failed(err, "studio")
	}
	v := ActivitiesView{Activities: slices.Concat(own, r.In.Games()), Aims: []Aim{}}
	for _, s := range r.Graph.Sorted() {
		v.Aims = append(v.Aims, Aim{s.ID, s.Name})
	}
	for _, key := range activity.Aims {
		v.Aims = append(v.Aims, Aim{key, r.In.Word("aim", key)})
	}
	slices.SortFunc(v.Aims, func(x, y Aim) int { return cmp.Or(strings.Compare(x.Name, y.Name), strings.Compare(x.Key, y.Key)) })
	return v, nil
}

// SaveActivity keeps an activity of the studio's own.
func SaveActivity(ctx context.Context, a *studio.App, who studio.Who, id string, c studio.Change[activity.Activity]) error {
	c.Now.ID = id
	return a.Edit(ctx, who, func(r studio.Room) error {
		own, err := r.Activities(ctx)
		if err != nil {
			return studio.Failed(err, "studio")
		}
		in, err := c.Onto(studio.Find(own, func(o activity.Activity) bool { return o.ID == id }))
		if err != nil {
			return err
		}
		in.Own, in.Title = true, strings.TrimSpace(in.Title)
		if err := in.Check(r.Graph); err != nil {
			return studio.Refuse("The activity cannot be kept: %v.", err)
		}
		if slices.ContainsFunc(activity.Bank(), func(b activity.Activity) bool { return b.ID == id }) {
			return studio.Refuse("That activity comes with the program; save yours under another name.")
		}
		return studio.Failed(r.SetActivity(ctx, in), "studio")
	})
}

// DropActivity takes an activity of the studio's own away.
func DropActivity(ctx context.Context, a *studio.App, who studio.Who, id string, seen *activity.Activity) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		own, err := r.Activities(ctx)
		if err != nil {
			return studio.Failed(err, "studio")
		}
		if err := studio.Unseen(seen, studio.Find(own, func(o activity.Activity) bool { return o.ID == id })); err != nil {
			return err
		}
		return studio.Failed(r.DropActivity(ctx, id), "studio")
	})
}
