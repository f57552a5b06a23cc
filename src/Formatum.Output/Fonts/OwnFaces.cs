using System.Collections.Immutable;

namespace Formatum.Output.Fonts;

/// <summary>Faces that publications brought, by their contents: those used last are kept, as many as have room.</summary>
internal sealed class OwnFaces
{
    private const int MostFaces = 64;
    private const long MostBytes = 256L << 20;

    private readonly Lock _gate = new();
    private readonly LinkedList<(string Hash, LoadedFace Face)> _known = new();
    private readonly Dictionary<string, LinkedListNode<(string Hash, LoadedFace Face)>> _byHash = [];
    private ImmutableList<FontStore> _stores = [];
    private long _bytes;

    public IDisposable LookIn(FontStore store)
    {
        lock (_gate) _stores = _stores.Add(store);
        return new Looked(this, store);
    }

    private sealed class Looked(OwnFaces faces, FontStore store) : IDisposable
    {
        public void Dispose()
        {
            lock (faces._gate) faces._stores = faces._stores.Remove(store);
        }
    }

    /// <summary>A face; null where its file is in none of the folders.</summary>
    public LoadedFace? Find(string hash)
    {
        lock (_gate)
        {
            if (_byHash.TryGetValue(hash, out var node))
            {
                if (node != _known.First)
                {
                    _known.Remove(node);
                    _known.AddFirst(node);
                }
                return node.Value.Face;
            }
            if (_stores.Select(s => s.Find(hash)).OfType<byte[]>().FirstOrDefault() is not { } file) return null;
            var face = LoadedFace.Of(file);
            _byHash[hash] = _known.AddFirst((hash, face));
            _bytes += file.Length;
            while (_known.Count > MostFaces || (_bytes > MostBytes && _known.Count > 1)) Drop(_known.Last!);
            return face;
        }
    }

    /// <summary>Lets go of a face: it goes once nobody shapes or draws with it any more.</summary>
    private void Drop(LinkedListNode<(string Hash, LoadedFace Face)> node)
    {
        _known.Remove(node);
        _byHash.Remove(node.Value.Hash);
        _bytes -= node.Value.Face.File.Length;
    }
}
