namespace Formatum.Web.Desk;

/// <summary>Our own small drawings for buttons.</summary>
public static class Icons
{
    private const string Begin = """<svg class="icon" viewBox="0 0 16 16" aria-hidden="true">""", End = "</svg>";
    private const string Dashed = """fill="none" stroke="currentColor" stroke-width="1.5" stroke-dasharray="2.5 1.6"/>""";

    public const string Pick = Begin + """<path d="M4 2l8 6.5-3.6.6 2 3.9-1.7.9-2-3.9L4 12.5z"/>""" + End;
    public const string Rectangle = Begin + """<path d="M2 3.5h12v9H2z" """ + Dashed + End;
    public const string Undo = Begin +
        """<path d="M6.5 3L3 6.5 6.5 10M3.2 6.5h6.3a3.5 3.5 0 010 7H7" fill="none" stroke="currentColor" stroke-width="1.6"/>""" + End;
    public const string Redo = Begin +
        """<path d="M9.5 3L13 6.5 9.5 10M12.8 6.5H6.5a3.5 3.5 0 000 7H9" fill="none" stroke="currentColor" stroke-width="1.6"/>""" + End;
    public const string Before = Begin + """<path d="M10 3L5 8l5 5" fill="none" stroke="currentColor" stroke-width="1.8"/>""" + End;
    public const string After = Begin + """<path d="M6 3l5 5-5 5" fill="none" stroke="currentColor" stroke-width="1.8"/>""" + End;
    public const string Ellipse = Begin + """<ellipse cx="8" cy="8" rx="6" ry="5" """ + Dashed + End;
    public const string Polygon = Begin + """<path d="M8 1.8l5.6 3.1v6.2L8 14.2l-5.6-3.1V4.9z" """ + Dashed + End;
    public const string Free = Begin + """<path d="M2.5 11.5C2 5 7 2 9 5.5s3 1 4.5 2.5-1 6-4.5 4.5-6 1.5-6.5-1z" """ + Dashed + End;
    public const string Text = Begin +
        """<path d="M2.5 3.5h11M2.5 6.5h11M2.5 9.5h11M2.5 12.5h6" fill="none" stroke="currentColor" stroke-width="1.5"/>""" + End;
    public const string Find = Begin +
        """<path d="M7 2.5a4.5 4.5 0 100 9 4.5 4.5 0 000-9zM10.3 10.3L14 14" fill="none" stroke="currentColor" stroke-width="1.7"/>""" + End;
    public const string Grid = Begin +
        """<path d="M2 2.5h5v4.5H2zM9 2.5h5v4.5H9zM2 9h5v4.5H2zM9 9h5v4.5H9z" fill="none" stroke="currentColor" stroke-width="1.4"/>""" + End;
}
