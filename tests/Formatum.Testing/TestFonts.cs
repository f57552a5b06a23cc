namespace Formatum.Testing;

/// <summary>Fonts made by fontTools from a shipped one, once for all tests of a process.</summary>
public static class TestFonts
{
    private static readonly Lock Gate = new();
    private static TempFolder? _made;

    /// <param name="name">As make_fonts.py names it: "plain.woff2", "restricted.ttf".</param>
    /// <param name="trueType">Gives the font that the others are made from.</param>
    public static string Find(string name, Func<Stream> trueType)
    {
        lock (Gate)
        {
            if (_made is null)
            {
                var folder = new TempFolder();
                using (var file = File.Create(folder["given.ttf"]))
                using (var given = trueType()) given.CopyTo(file);
                Tool.Run("/usr/bin/python3", Path.Combine(AppContext.BaseDirectory, "make_fonts.py"), folder["given.ttf"], Path.GetDirectoryName(folder["x"])!);
                _made = folder;
                AppDomain.CurrentDomain.ProcessExit += (_, _) => folder.Dispose();
            }
            return _made[name];
        }
    }
}
