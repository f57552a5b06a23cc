namespace Formatum.Web.Desk;

/// <summary>Our own small drawings for buttons.</summary>
public static class Icons
{
    public const string Pick = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M4 2l8 6.5-3.6.6 2 3.9-1.7.9-2-3.9L4 12.5z"/></svg>""";
    public const string Rectangle = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M2 3.5h12v9H2z" fill="none" stroke="currentColor" stroke-width="1.5" stroke-dasharray="2.5 1.6"/></svg>""";
    public const string Undo = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M6.5 3L3 6.5 6.5 10M3.2 6.5h6.3a3.5 3.5 0 010 7H7" fill="none" stroke="currentColor" stroke-width="1.6"/></svg>""";
    public const string Redo = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M9.5 3L13 6.5 9.5 10M12.8 6.5H6.5a3.5 3.5 0 000 7H9" fill="none" stroke="currentColor" stroke-width="1.6"/></svg>""";
    public const string Before = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M10 3L5 8l5 5" fill="none" stroke="currentColor" stroke-width="1.8"/></svg>""";
    public const string After = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M6 3l5 5-5 5" fill="none" stroke="currentColor" stroke-width="1.8"/></svg>""";
    public const string Ellipse = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><ellipse cx="8" cy="8" rx="6" ry="5" fill="none" stroke="currentColor" stroke-width="1.5" stroke-dasharray="2.5 1.6"/></svg>""";
    public const string Polygon = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M8 1.8l5.6 3.1v6.2L8 14.2l-5.6-3.1V4.9z" fill="none" stroke="currentColor" stroke-width="1.5" stroke-dasharray="2.5 1.6"/></svg>""";
    public const string Free = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M2.5 11.5C2 5 7 2 9 5.5s3 1 4.5 2.5-1 6-4.500 4.500-6 1.500-6.500-1z" fill="none" stroke="currentColor" stroke-width="1.5" stroke-dasharray="2.5 1.6"/></svg>""";
    public const string Text = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M2.500 3.500h11M2.500 6.500h11M2.500 9.500h11M2.500 12.500h6" fill="none" stroke="currentColor" stroke-width="1.500"/></svg>""";
    public const string Grid = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true"><path d="M2 2.500h5v4.500H2zM9 2.500h5v4.500H9zM2 9h5v4.500H2zM9 9h5v4.500H9z" fill="none" stroke="currentColor" stroke-width="1.400"/></svg>""";
}
