namespace Formatum.Core.Publications;

/// <summary>The kinds of parts a publication is made of. The numbers are kept in files: add, never renumber.</summary>
public enum PartKind
{
    Setup = 1, PageOrder = 2, Page = 3, Frame = 4, Image = 5, Rule = 6, Tray = 7, Master = 8, Story = 9, Style = 10, Font = 11, Colour = 12, Look = 13,
    Recipe = 14, CheckProfile = 15, Accepted = 16,
}

/// <summary>Which part of a publication is meant.</summary>
public readonly record struct PartKey(PartKind Kind, int Id);

/// <summary>A part of a publication: the smallest thing that an edit replaces, that the journal keeps, and over which two windows can clash.</summary>
public abstract record Part
{
    public abstract PartKey Key { get; }
}
